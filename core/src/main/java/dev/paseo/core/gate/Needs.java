package dev.paseo.core.gate;

import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What criteria are judged on, of all that can be known at a gate: the rest need not be asked for.
 *
 * @param what       of what is known of the gate and the version
 * @param people     the groups and persons whose members count, and with them who stands in for whom
 * @param conditions over facts
 */
public record Needs(Set<What> what, Set<String> people, Set<String> conditions) {

    /** What is known of the gate and the version. */
    public enum What { AUTHORS, TICKS, ANSWERS, PASSED, TAGS, STRETCH }

    public Needs {
        what = Set.copyOf(what);
        people = Set.copyOf(people);
        conditions = Set.copyOf(conditions);
    }

    /** What all of them are judged on. */
    public static Needs of(List<Criterion> criteria) {
        Set<What> what = EnumSet.noneOf(What.class);
        Set<String> people = new HashSet<>();
        Set<String> conditions = new HashSet<>();
        for (Criterion criterion : criteria) {
            switch (criterion) {
                case Criterion.Approvals approvals -> {
                    people.addAll(approvals.from());
                    approvals.escalation().ifPresent(more -> people.add(more.to()));
                    if (approvals.notBy().contains(Criterion.Exclusion.AUTHORS)) {
                        what.add(What.AUTHORS);
                    }
                }
                case Criterion.Checklist checklist -> {
                    people.addAll(checklist.from());
                    what.add(What.TICKS);
                }
                case Criterion.Fact fact -> conditions.add(fact.condition());
                case Criterion.Outside outside -> what.add(What.ANSWERS);
                case Criterion.Follows follows -> what.add(What.PASSED);
                case Criterion.Origin origin -> what.add(What.TAGS);
                case Criterion.LiveFor liveFor -> what.add(What.STRETCH);
                case Criterion.Open open -> {}
                case Criterion.NotHeld held -> {}
                case Criterion.NotClosed closed -> {}
                case Criterion.PreviousPassed previous -> {}
                case Criterion.Requires requires -> {}
            }
        }
        return new Needs(what, people, conditions);
    }

    public boolean has(What one) {
        return what.contains(one);
    }
}
