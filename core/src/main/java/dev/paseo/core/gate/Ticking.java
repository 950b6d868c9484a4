package dev.paseo.core.gate;

import dev.paseo.core.gate.Criterion.Checklist;
import dev.paseo.core.gate.Judgement.State;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Checklists: who may tick, and how far they are. An item that is no longer on the list no longer counts. */
public final class Ticking {

    private Ticking() {}

    static Judgement judge(Checklist wanted, GateFacts facts) {
        List<Tick> done = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        for (String item : wanted.items()) {
            newest(item, facts).filter(tick -> tick.outcome() == Tick.Outcome.DONE).ifPresentOrElse(done::add,
                    () -> missing.add(item));
        }
        String name = done.size() + " of " + wanted.items().size() + " ticked";
        Optional<String> failed = failure(wanted, facts);
        if (failed.isPresent()) {
            return new Judgement(State.NOT_MET, name,
                    Character.toUpperCase(failed.get().charAt(0)) + failed.get().substring(1) + ".", Optional.empty());
        }
        if (missing.isEmpty()) {
            return new Judgement(State.MET, name,
                    "Ticked by " + String.join(", ", done.stream().map(Tick::by).distinct().toList()) + ".",
                    Optional.empty());
        }
        boolean nobody = wanted.from().stream()
                .allMatch(group -> facts.people().members().getOrDefault(group, Set.of()).isEmpty());
        return new Judgement(State.ASKED, name,
                "Waits for " + String.join(" or ", wanted.from()) + ": " + String.join("; ", missing) + "."
                        + (nobody ? " Nobody is there who may: ask an administrator to add members to "
                                + String.join(" or ", wanted.from()) + "." : ""),
                Optional.empty(), nobody);
    }

    /** That an item failed, in words. */
    static Optional<String> failure(Checklist wanted, GateFacts facts) {
        return wanted.items().stream().flatMap(item -> newest(item, facts).stream())
                .filter(tick -> tick.outcome() == Tick.Outcome.FAILED).findFirst()
                .map(tick -> "\"" + tick.item() + "\" failed, says " + tick.by()
                        + (tick.note().isBlank() ? "" : ": \"" + tick.note() + "\""));
    }

    /** What was said last about an item; nothing where that was taken back. */
    public static Optional<Tick> newest(String item, GateFacts facts) {
        return facts.said().ticks().stream().filter(tick -> tick.item().equals(item)).reduce((earlier, later) -> later)
                .filter(tick -> tick.outcome() != Tick.Outcome.CLEARED);
    }

    /** Why this person may not tick here, if so. */
    public static Optional<String> refusal(Checklist wanted, GateFacts facts, String person) {
        boolean asked = wanted.from().stream().anyMatch(group -> {
            Set<String> members = facts.people().members().getOrDefault(group, Set.of());
            return members.contains(person)
                    || facts.people().standIns().getOrDefault(person, Set.of()).stream().anyMatch(members::contains);
        });
        return asked ? Optional.empty() : Optional
                .of(person + " is not in the group " + String.join(" or ", wanted.from()) + ", which ticks this list");
    }
}
