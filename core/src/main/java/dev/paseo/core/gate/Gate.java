package dev.paseo.core.gate;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Exclusion;
import dev.paseo.core.gate.Judgement.State;
import dev.paseo.core.trigger.BranchPattern;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Judges gates, and says who may decide at one. */
public final class Gate {

    private Gate() {}

    public static Verdict judge(List<Criterion> criteria, GateFacts facts, Instant now) {
        List<Judgement> judgements = new ArrayList<>();
        Optional<String> rejected = Optional.empty();
        Optional<String> expired = Optional.empty();
        for (Criterion criterion : criteria) {
            Judgement judgement = judge(criterion, facts, now);
            judgements.add(judgement);
            if (criterion instanceof Approvals approvals && judgement.state() != State.MET) {
                rejected = rejected.or(() -> rejection(facts));
                expired = expired.or(() -> expiry(approvals, facts, now));
            }
        }
        return new Verdict(judgements, rejected, rejected.isPresent() ? Optional.empty() : expired);
    }

    private static Judgement judge(Criterion criterion, GateFacts facts, Instant now) {
        return switch (criterion) {
            case Approvals approvals -> judgeApprovals(approvals, facts);
            case Criterion.Follows(List<String> environments) -> judgeFollows(environments, facts);
            case Criterion.Branches(List<String> patterns) -> judgeBranches(patterns, facts);
            case Criterion.NotHeld() -> judgeHold(facts);
            case Criterion.NotClosed() -> judgeClosed(facts);
            case Criterion.Requires() -> judgeRequirements(facts);
        };
    }

    private static Judgement judgeApprovals(Approvals wanted, GateFacts facts) {
        List<Ruling> counted = counted(wanted, facts);
        String name = counted.size() + " of " + wanted.count() + (wanted.count() == 1 ? " approval" : " approvals");
        Optional<Ruling> no = latest(facts).stream().filter(ruling -> !ruling.yes()).findFirst();
        if (no.isPresent()) {
            return new Judgement(State.NOT_MET, name, no.get().by() + " said no: \"" + no.get().comment() + "\"", Optional.empty());
        }
        String said = String.join(", ", counted.stream().map(ruling -> ruling.by() + " said yes").toList());
        if (counted.size() >= wanted.count()) {
            return new Judgement(State.MET, name, said + ".", Optional.empty());
        }
        long voided = latest(facts).stream().filter(ruling -> !ruling.subject().equals(facts.subject())).count();
        String sentence = (said.isEmpty() ? "" : said + ". ") + "Waits for " + wanted.from()
                + (wanted.notBy().isEmpty() ? "" : ", not " + exclusions(wanted)) + "."
                + (voided == 0 ? "" : " " + voided + " given before no longer " + (voided == 1 ? "counts" : "count") + ": what was approved has changed.");
        Set<String> able = able(wanted, facts);
        if (able.size() < wanted.count() - counted.size()) {
            sentence += " Nobody is left who may: ask an administrator to add members to " + wanted.from() + ".";
        }
        return new Judgement(State.ASKED, name, sentence, wanted.within().map(facts.requestedAt()::plus));
    }

    private static String exclusions(Approvals wanted) {
        return String.join(" or ", wanted.notBy().stream().map(who -> switch (who) {
            case AUTHORS -> "an author";
            case REQUESTER -> "the requester";
        }).toList());
    }

    private static Set<String> able(Approvals wanted, GateFacts facts) {
        Set<String> able = new java.util.HashSet<>(facts.members().getOrDefault(wanted.from(), Set.of()));
        able.removeIf(person -> refusal(wanted, facts, person).isPresent());
        return able;
    }

    /** The newest ruling of each person. */
    private static List<Ruling> latest(GateFacts facts) {
        java.util.Map<String, Ruling> newest = new java.util.LinkedHashMap<>();
        facts.rulings().stream().sorted(Comparator.comparing(Ruling::at)).forEach(ruling -> newest.put(ruling.by(), ruling));
        return List.copyOf(newest.values());
    }

    /** The approvals that count now: on this subject, by members who are still members and are not excluded. */
    private static List<Ruling> counted(Approvals wanted, GateFacts facts) {
        Set<String> members = facts.members().getOrDefault(wanted.from(), Set.of());
        return latest(facts).stream()
                .filter(Ruling::yes)
                .filter(ruling -> ruling.subject().equals(facts.subject()))
                .filter(ruling -> members.contains(ruling.by()) && excluded(wanted, facts, ruling.by()).isEmpty())
                .toList();
    }

    private static Optional<String> rejection(GateFacts facts) {
        return latest(facts).stream().filter(ruling -> !ruling.yes()).findFirst()
                .map(ruling -> "rejected by " + ruling.by() + ": \"" + ruling.comment() + "\"");
    }

    private static Optional<String> expiry(Approvals wanted, GateFacts facts, Instant now) {
        return wanted.within().map(facts.requestedAt()::plus).filter(end -> !now.isBefore(end))
                .map(end -> "nobody decided until " + end);
    }

    private static Optional<String> excluded(Approvals wanted, GateFacts facts, String person) {
        if (wanted.notBy().contains(Exclusion.REQUESTER) && person.equals(facts.requester())) {
            return Optional.of(person + " requested this deployment, and the requester may not decide about it");
        }
        if (wanted.notBy().contains(Exclusion.AUTHORS) && facts.authors().contains(person)) {
            return Optional.of(person + " wrote or pushed a commit of what is proposed, and authors may not decide about it");
        }
        return Optional.empty();
    }

    /** Why this person may not decide about this subject, if so. */
    public static Optional<String> refusal(Approvals wanted, GateFacts facts, String person) {
        if (!facts.members().getOrDefault(wanted.from(), Set.of()).contains(person)) {
            return Optional.of(person + " is not in the group " + wanted.from() + ", which decides here");
        }
        if (counted(wanted, facts).stream().anyMatch(ruling -> ruling.by().equals(person))) {
            return Optional.of(person + " has approved this already");
        }
        return excluded(wanted, facts, person);
    }

    private static Judgement judgeFollows(List<String> environments, GateFacts facts) {
        List<String> missing = environments.stream().filter(environment -> !facts.passed().contains(environment)).toList();
        String name = "Live in " + String.join(" and ", environments) + " before";
        return missing.isEmpty()
                ? new Judgement(State.MET, name, "It has been live in " + String.join(" and ", environments) + ".", Optional.empty())
                : new Judgement(State.NOT_MET, name, "It has not been live in " + String.join(" or ", missing) + " yet.", Optional.empty());
    }

    private static Judgement judgeBranches(List<String> patterns, GateFacts facts) {
        boolean met = patterns.isEmpty() ? facts.trusted()
                : patterns.stream().anyMatch(pattern -> new BranchPattern(pattern).matches(facts.branch()));
        String name = patterns.isEmpty() ? "From a trusted branch" : "From " + String.join(" or ", patterns);
        return new Judgement(met ? State.MET : State.NOT_MET, name, "Built from " + facts.branch() + ".", Optional.empty());
    }

    private static Judgement judgeHold(GateFacts facts) {
        Optional<String> held = facts.around().held();
        if (held.isPresent() && facts.requester().isEmpty()) {
            return new Judgement(State.NOT_MET, "Not held", held.get() + " Nothing goes there by itself until the hold is lifted; a person may ask.", Optional.empty());
        }
        return new Judgement(State.MET, "Not held", held.map(why -> why + " That does not stop a person, who asked for this.").orElse("Nothing holds the place."), Optional.empty());
    }

    private static Judgement judgeClosed(GateFacts facts) {
        Optional<GateFacts.Closed> closed = facts.around().closed();
        if (closed.isEmpty() || facts.around().rollback()) {
            return new Judgement(State.MET, "Open", closed.map(why -> why.sentence() + " A rollback may pass.").orElse("The environment is open."), Optional.empty());
        }
        State state = closed.get().until().isPresent() ? State.NOT_YET : State.NOT_MET;
        return new Judgement(state, "Open", closed.get().sentence(), closed.get().until());
    }

    private static Judgement judgeRequirements(GateFacts facts) {
        List<GateFacts.Requirement> missing = facts.around().requirements().stream().filter(each -> !each.met()).toList();
        String name = "Requires " + String.join(", ", facts.around().requirements().stream().map(each -> each.component() + " " + each.range()).toList());
        String sentence = missing.isEmpty()
                ? "Live there: " + String.join(", ", facts.around().requirements().stream().map(each -> each.component() + " " + each.live().orElse("")).toList()) + "."
                : String.join(" ", missing.stream().map(each -> each.component() + " " + each.range() + " is needed, but "
                        + each.live().map(live -> live + " is live there.").orElse("none is live there.")).toList());
        return new Judgement(missing.isEmpty() ? State.MET : State.NOT_MET, name, sentence, Optional.empty());
    }
}
