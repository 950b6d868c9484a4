package dev.paseo.service.passage;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.environment.Passage;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The shell around the deciding about passages. In one transaction: lock the passage, note what happened, judge its
 * exit gate again, and let the walk go on where that is open.
 */
@Component
public class Passages {

    /**
     * What a version has walked through.
     *
     * @param keeps why it does not go on from there
     */
    public record Walked(long passage, String environment, Passage.Status status, Instant openedAt,
            Optional<Instant> endedAt, Optional<String> keeps) {}

    private final PassageMapper mapper;
    private final Versions versions;
    private final ExitGates exits;
    private final WaitingGates waits;
    private final Changes changes;

    Passages(PassageMapper mapper, Versions versions, ExitGates exits, WaitingGates waits, Changes changes) {
        this.mapper = mapper;
        this.versions = versions;
        this.exits = exits;
        this.waits = waits;
        this.changes = changes;
    }

    /** A version is live there, perhaps for the first time. */
    public void opened(long version, long environment, long deployment) {
        mapper.open(version, environment, deployment, changes.now());
        mapper.wakeOthers(environment, versions.byId(version).componentId(), version, changes.now());
    }

    /** It has stayed live and been tested: its gate onward is judged from now on. In the transaction under way. */
    public void settled(long version, long environment, long cause) {
        mapper.of(version, environment).ifPresent(id -> change(id, row -> {
            if (row.settledAt() == null) {
                mapper.settle(id, changes.now());
                versions.firstLive(new Versions.FirstLive(version, row.environment(), row.deploymentId(), cause));
            }
        }));
    }

    /** A test of it there failed: it does not go on until one passes. In the transaction under way. */
    public void testFailed(long version, long environment, String why) {
        mapper.of(version, environment).ifPresent(
                id -> change(id, row -> mapper.testFailed(id, Shortened.to(why, 1500), changes.now())));
    }

    /** It was there before there was anybody who could have watched it: it has passed. */
    public void recorded(long version, long environment) {
        mapper.of(version, environment).ifPresent(id -> {
            mapper.settle(id, changes.now());
            mapper.end(id, changes.now());
        });
    }

    PassageRow passage(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("There is no passage " + id));
    }

    /** What a version has walked so far, in the order in which it came there. */
    public List<Walked> walked(long version) {
        return mapper.walked(version).stream()
                .map(row -> new Walked(row.id(), row.environment(), row.status(), row.openedAt(),
                        Optional.ofNullable(row.endedAt()), Optional.ofNullable(row.keeps())))
                .toList();
    }

    List<PassageRow> ofVersion(long version) {
        return mapper.ofVersion(version);
    }

    /** Judges it again, outside any transaction. */
    void look(long id) {
        exits.learn(passage(id));
        change(id, row -> {});
    }

    /** Something happens to it, in a transaction; its gate is judged again afterwards. */
    void change(long id, Consumer<PassageRow> event) {
        changes.run(() -> {
            mapper.lock(id).orElseThrow(() -> Refusal.notFound("There is no passage " + id));
            event.accept(passage(id));
            judge(passage(id));
        });
    }

    private void judge(PassageRow row) {
        Passage now = new Passage(row.status(),
                row.settledAt() != null);
        Optional<Evaluation> gate = exits.known(row);
        Optional<Verdict> verdict = gate.map(Evaluation::verdict);
        Decision<Passage, Passage.Effect> decision = Passage.decide(now,
                new Passage.PassageEvent.ExitJudged(verdict.filter(Verdict::open).isPresent()));
        if (!(decision instanceof Decision.Moved(Passage after, var effects))) {
            return;
        }
        Versions.Version version = versions.byId(row.versionId());
        if (effects.contains(new Passage.Effect.WalkOn()) && mapper.end(row.id(), changes.now()) == 1) {
            waits.gone(Gates.Standing.ofPassage(row.id()));
            versions.walkOn(row.versionId(), row.environment());
            changes.record(AuditTrail.Entry.of("paseo", "passage ended", version.component() + " " + version.number())
                    .in(row.environment())
                    .because("its gate onward is open").with("passage", Long.toString(row.id())));
        } else if (after.status() == Passage.Status.OPEN) {
            if (mapper.live(row.environmentId(), version.componentId(), row.versionId()) == 0) {
                // Another version is live there: nobody can test this one now.
                waits.gone(Gates.Standing.ofPassage(row.id()));
            } else if (after.settled()) {
                gate.ifPresent(each -> waits.keep(exits.at(row), each));
            }
            @Nullable
            Instant again = verdict.isEmpty() ? changes.now() : verdict.get().again().orElse(null);
            mapper.waits(row.id(), again, Optional.ofNullable(row.testFailure()).map(Passage::stays)
                    .or(() -> verdict.flatMap(Verdict::rejected))
                    .or(() -> verdict.flatMap(each -> each.judgements().stream()
                            .filter(judgement -> judgement.state() != Judgement.State.MET).map(Judgement::sentence)
                            .findFirst()))
                    .map(text -> Shortened.to(text, 2000)).orElse(null));
        }
        mapper.wakePlace(row.environmentId(), version.componentId(), changes.now());
        changes.publish("passage", Long.toString(row.id()));
        changes.publish("whereabouts", version.component());
    }
}
