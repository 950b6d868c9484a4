package dev.paseo.service.dryrun;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.DryRun;
import dev.paseo.core.environment.DryRun.Finding;
import dev.paseo.core.environment.DryRun.Outcome;
import dev.paseo.core.environment.GateSide;
import dev.paseo.core.environment.RulesChange;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.dryrun.DryRunMapper.PastRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Holds the rules of a file against what went through the gates of its environments, or ended at them. */
@Component
class DryRuns {

    /** No more are looked at of one gate. */
    static final int MOST = 1000;

    /**
     * What would have come of one that stood at a gate; only what would have come out otherwise, or cannot be told.
     *
     * @param deployment at the gate before the environment
     * @param passage    at the gate onward
     * @param at         when it went through, or ended
     * @param sentences  why
     */
    record DryRunFoundView(GateSide gate, String component, String version, Optional<Long> deployment,
            Optional<Long> passage,
            Instant at, Outcome outcome, List<String> sentences) {}

    /**
     * What the rules of one environment would have done.
     *
     * @param more        what they ask more, in words, each after the component whose own gate it is, if any
     * @param less        what they no longer ask, or not surely as strictly
     * @param went        how many went through the gates that change
     * @param ended       how many ended at them
     * @param emergencies how many of those that went did so past unmet criteria; they would have again
     * @param all         whether these are all; else only the newest 1000 of a gate
     * @param found       the newest first
     */
    record EnvironmentDryRunView(String environment, List<String> more, List<String> less, int went, int ended,
            int emergencies, boolean all, List<DryRunFoundView> found) {}

    private final DryRunMapper mapper;
    private final Environments environments;
    private final Versions versions;
    private final PastFacts past;

    DryRuns(DryRunMapper mapper, Environments environments, Versions versions, PastFacts past) {
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.past = past;
    }

    /** Of each environment whose gates the file changes; those that are new have no past. */
    List<EnvironmentDryRunView> of(EnvironmentsFile file, Instant since, Person person) {
        List<Environments.Environment> there = environments.all();
        return file.environments().stream()
                .flatMap(wanted -> there.stream().filter(known -> known.name().equals(wanted.name()))
                        .map(known -> new Changed(known, new RulesChange(known.rules(), wanted.rules()))))
                .filter(changed -> changed.change().matters()).map(changed -> of(changed, since, person)).toList();
    }

    /** Of an environment. */
    private record Changed(Environments.Environment environment, RulesChange change) {}

    private EnvironmentDryRunView of(Changed changed, Instant since, Person person) {
        long environment = changed.environment().id();
        RulesChange change = changed.change();
        List<PastRow> entered = change.changes(GateSide.TO_ENTER) || change.changes(GateSide.ROLLBACK)
                ? mapper.entered(environment, since, MOST + 1)
                : List.of();
        List<PastRow> wentOn = change.changes(GateSide.TO_GO_ON) ? mapper.wentOn(environment, since, MOST + 1)
                : List.of();
        Tally tally = new Tally(changed, person);
        entered.stream().limit(MOST).forEach(row -> tally.add(
                row.kind() == Kind.ROLLBACK ? GateSide.ROLLBACK : GateSide.TO_ENTER, row));
        wentOn.stream().limit(MOST).forEach(row -> tally.add(GateSide.TO_GO_ON, row));
        return new EnvironmentDryRunView(changed.environment().name(), change.more(), change.less(), tally.went,
                tally.ended, tally.emergencies, entered.size() <= MOST && wentOn.size() <= MOST,
                List.copyOf(tally.found));
    }

    /** What came of all that stood at the gates of an environment, so far. */
    private final class Tally {
        private final String environment;
        private final RulesChange change;
        private final Person person;
        private final List<DryRunFoundView> found = new ArrayList<>();
        private int went;
        private int ended;
        private int emergencies;

        Tally(Changed changed, Person person) {
            this.environment = changed.environment().name();
            this.change = changed.change();
            this.person = person;
        }

        void add(GateSide side, PastRow row) {
            if (!change.changes(side) || !person.may(Action.LOOK, Optional.of(row.component()),
                    Optional.of(environment))) {
                return;
            }
            went += row.went() ? 1 : 0;
            ended += row.went() ? 0 : 1;
            if (row.emergency() && row.went()) {
                emergencies++;
                return;
            }
            Gates.AtGate at = atGate(side, row, environment);
            Finding finding = judged(side, row, at, change);
            if (finding.outcome() != Outcome.AS_IT_WAS) {
                boolean onward = side == GateSide.TO_GO_ON;
                found.add(new DryRunFoundView(side, row.component(), at.version().number(),
                        onward ? Optional.empty() : Optional.of(row.id()),
                        onward ? Optional.of(row.id()) : Optional.empty(), row.at(), finding.outcome(),
                        finding.sentences()));
            }
        }
    }

    private Finding judged(GateSide side, PastRow row, Gates.AtGate at, RulesChange change) {
        List<Criterion> before = change.before(side, row.kind(), row.component());
        List<Criterion> after = change.after(side, row.kind(), row.component());
        List<Criterion> criteria = DryRun.ofMember(row.went() ? DryRun.more(before, after) : after, row.follows());
        if (criteria.isEmpty() || !row.went() && DryRun.less(before, after).isEmpty()) {
            return Finding.AS_IT_WAS;
        }
        Optional<GateFacts> facts = past
                .facts(new PastFacts.Judged(side == GateSide.TO_GO_ON, row, at, criteria, change.wanted().follows()));
        if (facts.isEmpty()) {
            return new Finding(Outcome.UNKNOWN,
                    List.of("Who wrote it is asked for, and the repository does not tell that any more."));
        }
        return row.went() ? DryRun.went(criteria, facts.get(), row.at())
                : DryRun.ended(criteria, facts.get(), row.at());
    }

    private Gates.AtGate atGate(GateSide side, PastRow row, String environment) {
        Versions.Version version = versions.byId(row.versionId());
        Gates.Standing standing = side == GateSide.TO_GO_ON ? Gates.Standing.ofPassage(row.id())
                : Gates.Standing.ofDeployment(row.id());
        Environments.Place place = environments.place(row.component(), environment);
        return new Gates.AtGate(standing, place, environments.of(place), version,
                Optional.ofNullable(row.beforeId()).map(versions::byId), row.requester(), row.requestedAt(), row.kind(),
                Optional.empty());
    }
}
