package dev.paseo.core.gate;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Checklist;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Everything that a gate is asked about, at one moment: how it stands, who is asked, who may say what. */
public record Evaluation(GateInput gate, Instant now) {

    /** Whom a gate asks: who could approve, and who could tick an item that is not ticked yet. */
    public record Asked(Set<String> deciders, Set<String> tickers) {}

    /** What its rules ask, and what follows from how things stand around it. */
    private List<Criterion> criteria() {
        return with(gate.asked(), gate.facts().around());
    }

    private static List<Criterion> with(List<Criterion> asked, GateFacts.Around around) {
        List<Criterion> all = new ArrayList<>(asked);
        around.held().ifPresent(held -> all.add(new Criterion.NotHeld()));
        around.closed().ifPresent(closed -> all.add(new Criterion.NotClosed()));
        around.tested().ifPresent(tested -> all.add(new Criterion.PreviousPassed()));
        if (!around.requirements().isEmpty()) {
            all.add(new Criterion.Requires());
        }
        return all;
    }

    /**
     * How it stands. People decide once about a whole set; what time and facts bring about has to hold for each of its
     * members.
     */
    public Verdict verdict() {
        if (gate.follows()) {
            return Verdict.OPEN;
        }
        Verdict first = Gate.judge(criteria(), gate.facts(), now);
        List<Judgement> judgements = new ArrayList<>(first.judgements());
        for (GateInput.Member member : gate.members()) {
            if (member.blocked()) {
                judgements.add(new Judgement(Judgement.State.NOT_MET, member.component() + ": Not blocked",
                        member.number() + " is blocked.", Optional.empty()));
            }
            List<Criterion> asked = with(
                    member.asked().stream().filter(criterion -> !Gate.asksPeople(criterion)).toList(),
                    member.facts().around());
            Gate.judge(asked, member.facts(), now).judgements().forEach(judgement -> judgements.add(
                    new Judgement(judgement.state(), member.component() + ": " + judgement.name(), judgement.sentence(),
                            judgement.until())));
        }
        return new Verdict(judgements, first.rejected(), first.expired());
    }

    /** What an approval would approve, as a digest. */
    public String digest() {
        return gate.facts().subject().digest();
    }

    /** When it expires because nobody decided. */
    public Optional<Instant> expiry() {
        return gate.asked().stream().flatMap(criterion -> Gate.within(criterion).stream())
                .map(gate.facts().requestedAt()::plus).min(Instant::compareTo);
    }

    /** Those outside who are asked. */
    public List<Criterion.Outside> outside() {
        return gate.asked().stream().filter(Criterion.Outside.class::isInstance).map(Criterion.Outside.class::cast)
                .toList();
    }

    public List<Checklist> checklists() {
        return checklists(gate.asked());
    }

    public static List<Checklist> checklists(List<Criterion> asked) {
        return asked.stream().filter(Checklist.class::isInstance).map(Checklist.class::cast).toList();
    }

    private Stream<Approvals> approvals() {
        return gate.asked().stream().filter(Approvals.class::isInstance).map(Approvals.class::cast);
    }

    public boolean needsComment() {
        return approvals().anyMatch(Approvals::commentRequired);
    }

    /** Why this person may not decide here, if so. */
    public Optional<String> refusal(String person) {
        return unlessAny(approvals().map(criterion -> Approving.refusal(criterion, gate.facts(), now, person)).toList(),
                gate.environment() + " asks nobody to decide");
    }

    /** Why this person may not tick here, if so. */
    public Optional<String> tickRefusal(String person) {
        return unlessAny(checklists().stream().map(list -> Ticking.refusal(list, gate.facts(), person)).toList(),
                gate.environment() + " has no checklist");
    }

    /** Why this person may not tick this item, if so. */
    public Optional<String> tickRefusal(String item, String person) {
        return unlessAny(
                checklists().stream().filter(list -> list.items().contains(item))
                        .map(list -> Ticking.refusal(list, gate.facts(), person)).toList(),
                "\"" + item + "\" is not on the list");
    }

    /** Why a decision here cannot be handed on to somebody. */
    public Optional<String> handOnRefusal(String to) {
        return unlessAny(approvals().map(criterion -> Approving.handOnRefusal(criterion, gate.facts(), to)).toList(),
                gate.environment() + " asks nobody to decide");
    }

    /** Whoever may by one criterion, may; else the reason of the first. */
    private static Optional<String> unlessAny(List<Optional<String>> refusals, String none) {
        if (refusals.isEmpty()) {
            return Optional.of(none);
        }
        return refusals.stream().anyMatch(Optional::isEmpty) ? Optional.empty() : refusals.getFirst();
    }

    /** In whose place this person would decide here; empty where it is their own voice, or they have none. */
    public Optional<String> inPlaceOf(String person) {
        return approvals().filter(criterion -> Approving.refusal(criterion, gate.facts(), now, person).isEmpty())
                .flatMap(criterion -> Approving.inPlaceOf(criterion, gate.facts(), now, person).stream()).findFirst();
    }

    /** Whom it asks now. */
    public Asked asked() {
        Asked asked = new Asked(new TreeSet<>(), new TreeSet<>());
        for (Criterion criterion : gate.asked()) {
            if (Gate.judge(List.of(criterion), gate.facts(), now).judgements().getFirst()
                    .state() != Judgement.State.ASKED) {
                continue;
            }
            if (criterion instanceof Approvals approvals) {
                people(Approving.asked(approvals, gate.facts(), now))
                        .filter(person -> Approving.refusal(approvals, gate.facts(), now, person).isEmpty())
                        .forEach(asked.deciders()::add);
            } else if (criterion instanceof Checklist list) {
                people(list.from()).filter(person -> Ticking.refusal(list, gate.facts(), person).isEmpty())
                        .forEach(asked.tickers()::add);
            }
        }
        return asked;
    }

    private Stream<String> people(List<String> asked) {
        GateFacts.People people = gate.facts().people();
        return Stream.concat(asked.stream().flatMap(name -> people.members().getOrDefault(name, Set.of()).stream()),
                people.standIns().keySet().stream());
    }

    /** What it waits for. */
    public enum WaitsFor { DECISION, CHECKLIST, TIME }

    /**
     * All that is not met, told as one.
     *
     * @param name     of what asks somebody, else of the first
     * @param sentence of each
     * @param due      when it expires, where somebody is asked; else when time alone meets the first
     * @param nobody   somebody is asked, and nobody is left who may
     */
    public record Unmet(WaitsFor what, String name, String sentence, Optional<Instant> due, boolean nobody,
            Asked people) {}

    /** Empty where it is open. */
    public Optional<Unmet> unmet() {
        List<Judgement> unmet = verdict().judgements().stream()
                .filter(judgement -> judgement.state() != Judgement.State.MET).toList();
        if (unmet.isEmpty()) {
            return Optional.empty();
        }
        Optional<Judgement> asks = unmet.stream().filter(judgement -> judgement.state() == Judgement.State.ASKED)
                .findFirst();
        Judgement first = asks.orElse(unmet.getFirst());
        Asked people = asked();
        WaitsFor what = asks.isEmpty() ? WaitsFor.TIME
                : people.tickers().isEmpty() ? WaitsFor.DECISION : WaitsFor.CHECKLIST;
        return Optional.of(new Unmet(what, first.name(),
                String.join(" ", unmet.stream().map(Judgement::sentence).toList()),
                asks.isPresent() ? expiry() : first.until(), unmet.stream().anyMatch(Judgement::nobody), people));
    }

    /** Those whose approval no longer counts, since it was of something else. */
    public Set<String> voided() {
        return new TreeSet<>(Approving.outdated(gate.facts()).stream().map(GateDecision::by).toList());
    }

    /** Why they no longer count; empty where all that were given do. */
    public Optional<String> whyVoided() {
        String voided = Approving.voided(gate.facts());
        return verdict().judgements().stream().map(Judgement::sentence)
                .filter(sentence -> !voided.isEmpty() && sentence.contains(voided)).findFirst();
    }
}
