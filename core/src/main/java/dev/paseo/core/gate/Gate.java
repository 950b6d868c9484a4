package dev.paseo.core.gate;

import dev.paseo.core.text.When;
import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Judgement.State;
import dev.paseo.core.trigger.BranchPattern;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Judges gates. Pure: the same facts at the same moment give the same verdict. */
public final class Gate {

    private Gate() {}

    /**
     * What a set's gate asks: what its first member's does, and whatever people are asked at the gates of the others,
     * so that nobody borrows the weaker gate of another by putting the two into one set.
     */
    public static List<Criterion> ofSet(List<Criterion> first, List<List<Criterion>> others) {
        List<Criterion> all = new ArrayList<>(first);
        others.stream().flatMap(List::stream).filter(Gate::asksPeople).filter(criterion -> !all.contains(criterion))
                .forEach(all::add);
        return all;
    }

    /** Whether somebody has to say or tick something: that is done once for a set, not by each member. */
    public static boolean asksPeople(Criterion criterion) {
        return criterion instanceof Criterion.Approvals || criterion instanceof Criterion.Checklist
                || criterion instanceof Criterion.Outside;
    }

    public static Verdict judge(List<Criterion> criteria, GateFacts facts, Instant now) {
        List<Judgement> judgements = new ArrayList<>();
        Optional<String> rejected = Optional.empty();
        Optional<String> expired = Optional.empty();
        for (Criterion criterion : criteria) {
            Judgement judgement = judge(criterion, facts, now);
            judgements.add(judgement);
            if (judgement.state() != State.MET) {
                rejected = rejected.or(() -> rejection(criterion, facts));
                expired = expired.or(() -> expiry(criterion, facts, now));
            }
        }
        return new Verdict(judgements, rejected, rejected.isPresent() ? Optional.empty() : expired);
    }

    private static Judgement judge(Criterion criterion, GateFacts facts, Instant now) {
        return switch (criterion) {
            case Approvals approvals -> Approving.judge(approvals, facts, now);
            case Criterion.Checklist checklist -> Ticking.judge(checklist, facts);
            case Criterion.LiveFor liveFor -> TimeCriteria.liveFor(liveFor, facts.version().stretch(), now);
            case Criterion.Open(Hours hours) -> TimeCriteria.open(hours, now);
            case Criterion.Fact fact -> fact(fact, facts);
            case Criterion.Outside outside -> outside(outside, facts);
            case Criterion.Follows follows -> follows(follows, facts);
            case Criterion.Origin origin -> origin(origin, facts.version());
            case Criterion.NotHeld() -> hold(facts);
            case Criterion.NotClosed() -> closed(facts);
            case Criterion.PreviousPassed() -> previous(facts);
            case Criterion.Requires() -> requirements(facts);
        };
    }

    /** That somebody's no ends it. */
    private static Optional<String> rejection(Criterion criterion, GateFacts facts) {
        return switch (criterion) {
            case Approvals approvals -> Approving.rejection(facts);
            case Criterion.Checklist checklist -> Ticking.failure(checklist, facts);
            case Criterion.Outside outside -> Optional.ofNullable(facts.said().answers().get(outside.name()))
                    .filter(answer -> !answer.yes().orElse(true))
                    .map(answer -> outside.name() + " said no: \"" + answer.words() + "\"");
            default -> Optional.empty();
        };
    }

    /** How long after the request somebody has to have said it. */
    static Optional<Duration> within(Criterion criterion) {
        return switch (criterion) {
            case Approvals approvals -> approvals.within();
            case Criterion.Outside outside -> outside.within();
            default -> Optional.empty();
        };
    }

    private static Optional<String> expiry(Criterion criterion, GateFacts facts, Instant now) {
        return within(criterion).map(facts.requestedAt()::plus).filter(end -> !now.isBefore(end))
                .map(end -> "no decision by " + When.utc(end) + "; request it again");
    }

    private static Judgement fact(Criterion.Fact wanted, GateFacts facts) {
        GateFacts.Held held = facts.version().conditions().getOrDefault(wanted.condition(),
                new GateFacts.Held(Optional.empty(), "nothing is known"));
        String formula = wanted.name().isEmpty() ? "" : " (" + wanted.condition() + ")";
        if (held.holds().isEmpty()) {
            return new Judgement(State.NOT_MET, wanted.shown(),
                    "Something that it asks for was never reported" + formula + ": " + held.facts() + ".",
                    Optional.empty());
        }
        return new Judgement(held.holds().get() ? State.MET : State.NOT_MET, wanted.shown(),
                (held.holds().get() ? "It holds" : "It does not hold") + formula + ": " + held.facts() + ".",
                Optional.empty());
    }

    private static Judgement outside(Criterion.Outside wanted, GateFacts facts) {
        String name = "Answer from " + wanted.name();
        GateFacts.Answer answer = facts.said().answers().get(wanted.name());
        Optional<Instant> end = wanted.within().map(facts.requestedAt()::plus);
        if (answer == null) {
            return new Judgement(State.ASKED, name, wanted.name() + " is about to be asked.", end);
        }
        if (answer.yes().isEmpty()) {
            return new Judgement(State.ASKED, name, "Waits for " + wanted.name() + ": " + answer.words(), end);
        }
        String said = wanted.name() + (answer.yes().get() ? " said yes" : " said no")
                + (answer.words().isBlank() ? "." : ": \"" + answer.words() + "\".");
        return new Judgement(answer.yes().get() ? State.MET : State.NOT_MET, name, said, Optional.empty());
    }

    private static Judgement follows(Criterion.Follows wanted, GateFacts facts) {
        List<String> environments = wanted.environments();
        List<String> been = environments.stream().filter(facts.version().passed()::contains).toList();
        List<String> missing = environments.stream().filter(environment -> !been.contains(environment)).toList();
        boolean met = wanted.any() ? !been.isEmpty() : missing.isEmpty();
        String name = "Through " + String.join(wanted.any() ? " or " : " and ", environments);
        return met
                ? new Judgement(State.MET, name,
                        "It has been live in " + String.join(" and ", been) + " and has passed there.",
                        Optional.empty())
                : new Judgement(State.NOT_MET, name, "It has not passed " + String.join(" or ", missing) + " yet.",
                        Optional.empty());
    }

    private static Judgement origin(Criterion.Origin wanted, GateFacts.OfVersion version) {
        boolean plain = wanted.branches().isEmpty() && wanted.tags().isEmpty();
        boolean met = plain && version.trusted() && !version.uploaded()
                || !version.uploaded() && matches(wanted.branches(), List.of(version.branch()))
                || matches(wanted.tags(), version.tags())
                || wanted.uploads() && version.uploaded();
        List<String> from = new ArrayList<>(plain ? List.of("a trusted branch") : wanted.branches());
        wanted.tags().forEach(tag -> from.add("tag " + tag));
        if (wanted.uploads()) {
            from.add("an upload");
        }
        String name = "From " + String.join(" or ", from);
        String tags = version.tags().isEmpty() ? "" : ", tagged " + String.join(", ", version.tags());
        return new Judgement(met ? State.MET : State.NOT_MET, name,
                (version.uploaded()
                        ? "Built elsewhere"
                                + (wanted.uploads() ? "" : ", which the environment does not name (uploads: true)")
                        : "Built from " + version.branch()) + tags + ".",
                Optional.empty());
    }

    private static boolean matches(List<String> patterns, List<String> names) {
        return patterns.stream().map(BranchPattern::new).anyMatch(pattern -> names.stream().anyMatch(pattern::matches));
    }

    private static Judgement hold(GateFacts facts) {
        Optional<String> held = facts.around().held();
        if (held.isPresent() && facts.requester().isEmpty()) {
            return new Judgement(State.NOT_MET, "Not held",
                    held.get() + " Nothing goes there by itself until the hold is lifted; a person may ask.",
                    Optional.empty());
        }
        return new Judgement(State.MET, "Not held",
                held.map(why -> why + " That does not stop a person, who asked for this.")
                        .orElse("Nothing holds the place."),
                Optional.empty());
    }

    private static Judgement previous(GateFacts facts) {
        Optional<String> tested = facts.around().tested();
        if (tested.isPresent() && facts.requester().isEmpty()) {
            return new Judgement(State.NOT_MET, "Nothing is being tested there",
                    tested.get() + " is being tested there; when that has ended, the newest goes on by itself.",
                    Optional.empty());
        }
        return new Judgement(State.MET, "Nothing is being tested there",
                tested.map(number -> number + " is being tested there, but a person asked for this.")
                        .orElse("What is live there has passed."),
                Optional.empty());
    }

    private static Judgement closed(GateFacts facts) {
        Optional<GateFacts.Closed> closed = facts.around().closed();
        if (closed.isEmpty() || facts.around().rollback()) {
            return new Judgement(State.MET, "Not closed",
                    closed.map(why -> why.sentence() + " A rollback may pass.").orElse("The environment is open."),
                    Optional.empty());
        }
        State state = closed.get().until().isPresent() ? State.NOT_YET : State.NOT_MET;
        return new Judgement(state, "Not closed", closed.get().sentence(), closed.get().until());
    }

    private static Judgement requirements(GateFacts facts) {
        List<GateFacts.Requirement> missing = facts.around().requirements().stream().filter(each -> !each.met())
                .toList();
        String name = "Requires " + String.join(", ",
                facts.around().requirements().stream().map(each -> each.component() + " " + each.range()).toList());
        String sentence = missing.isEmpty()
                ? "Live there: " + String.join(", ",
                        facts.around().requirements().stream()
                                .map(each -> each.component() + " " + each.live().orElse("")).toList())
                        + "."
                : String.join(" ",
                        missing.stream().map(each -> each.component() + " " + each.range() + " is needed, but "
                                + each.live().map(live -> live + " is live there.").orElse("none is live there."))
                                .toList());
        return new Judgement(missing.isEmpty() ? State.MET : State.NOT_MET, name, sentence, Optional.empty());
    }
}
