package dev.paseo.service.passage;

import dev.paseo.core.environment.Passage;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Passages as they are shown. */
@Component
class PassageViews {

    /**
     * A version's stay in an environment.
     *
     * @param mayNot     why the reader may not decide about its leaving; empty where they may
     * @param mayNotTick why the reader may not tick
     * @param reason     what keeps it there
     * @param subject    what an approval approves, to be sent with it; absent once it has ended
     * @param testFailed a test of what is live failed there, so that its gate onward is not judged
     */
    record PassageView(long id, String component, String version, String environment, long deployment,
            Passage.Status status,
            Instant openedAt, Optional<Instant> settledAt,
            Optional<Instant> endedAt, Optional<String> reason, List<GateViews.CriterionView> gate,
            List<GateViews.ListView> checklists, List<GateViews.GateDecisionView> decisions,
            Optional<String> mayNot, Optional<String> mayNotTick, boolean commentRequired, Optional<String> url,
            Optional<String> subject, boolean testFailed, String zone) {}

    private final ExitGates exits;
    private final Versions versions;
    private final Gates gates;
    private final GateViews views;
    private final Environments environments;

    PassageViews(ExitGates exits, Versions versions, Gates gates, GateViews views, Environments environments) {
        this.exits = exits;
        this.versions = versions;
        this.gates = gates;
        this.views = views;
        this.environments = environments;
    }

    PassageView view(PassageRow row, String reader) {
        Versions.Version version = versions.byId(row.versionId());
        boolean open = row.status() == Passage.Status.OPEN;
        Optional<Evaluation> gate = Optional.of(row).filter(each -> open).map(exits::evaluation);
        Gates.AtGate at = exits.at(row);
        String subject = gate.map(Evaluation::digest).orElseGet(() -> gates.digest(at));
        Gates.Standing standing = Gates.Standing.ofPassage(row.id());
        String ended = "passage " + row.id() + " has ended";
        return new PassageView(row.id(), version.component(), version.number(), row.environment(), row.deploymentId(),
                row.status(), row.openedAt(), Optional.ofNullable(row.settledAt()),
                Optional.ofNullable(row.endedAt()), Optional.ofNullable(row.reason()),
                GateViews.criteria(gate.map(Evaluation::verdict).orElse(Verdict.OPEN)), views.lists(at),
                views.decisions(standing, subject),
                gate.map(each -> each.refusal(reader)).orElse(Optional.of(ended)),
                gate.map(each -> each.tickRefusal(reader)).orElse(Optional.of(ended)),
                gate.filter(Evaluation::needsComment).isPresent(),
                environments.place(version.component(), row.environment()).url(), gate.map(Evaluation::digest),
                row.testFailure() != null, environments.byId(row.environmentId()).zone());
    }
}
