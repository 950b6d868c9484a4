package dev.paseo.core.environment;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The rules of an environment.
 *
 * @param follows     where a version must have been and passed before
 * @param origin      where versions may come from
 * @param takesOver   a newer version does not wait until the one before it has passed
 * @param replaceable a component's own gate replaces that of the environment; else it only adds to it
 * @param components  what single components set for their gates
 * @param closed      a calendar of closed periods (RFC 5545)
 * @param toLoosen    groups and persons of whom one agrees before these rules, or what reaches this environment, are
 *                    loosened; empty:
 *                    nobody is asked, and what goes live within a day is reviewed
 */
public record Rules(int format, Optional<Criterion.Follows> follows, Criterion.Origin origin, Gates gates,
        GateRules rollback,
        boolean takesOver, boolean replaceable, Map<String, Gates> components, Optional<String> closed,
        Optional<List<String>> toLoosen) {

    public static final int FORMAT = 4;

    /** No criteria at all. */
    public static final Rules NONE = new Rules(FORMAT, Optional.empty(), Criterion.Origin.TRUSTED, Gates.NONE,
            GateRules.NONE, false, false, Map.of(), Optional.empty(), Optional.empty());

    /** What has to be met to enter, and to go on from there. */
    public record Gates(GateRules toEnter, GateRules toGoOn) {
        public static final Gates NONE = new Gates(GateRules.NONE, GateRules.NONE);
    }

    public Rules {
        components = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(components));
    }

    /** Every gate that these rules have: before it, onward, of rollbacks, and of components of their own. */
    public Stream<GateRules> everyGate() {
        return Stream.concat(Stream.of(gates.toEnter(), gates.toGoOn(), rollback),
                components.values().stream().flatMap(own -> Stream.of(own.toEnter(), own.toGoOn())));
    }

    /** The criteria of the gate before, for a deployment of this kind; a preview has none. */
    public List<Criterion> toEnter(Kind kind, String component) {
        List<Criterion> criteria = new ArrayList<>(switch (kind) {
            case ROLLBACK -> rollback.criteria();
            case PREVIEW -> List.<Criterion>of();
            default -> together(gates.toEnter(), own(component).toEnter());
        });
        if (kind == Kind.PROMOTION) {
            follows.ifPresent(criteria::add);
            criteria.add(origin);
        }
        return criteria;
    }

    /** The criteria of the gate onward, for a component's passages. */
    public List<Criterion> toGoOn(String component) {
        return together(gates.toGoOn(), own(component).toGoOn());
    }

    /** Who agrees before less is asked here, as a sentence; empty where nobody does. */
    public Optional<String> secondPerson() {
        return toLoosen
                .map(names -> "One of " + String.join(" or ", names) + " agrees before, other than whoever wants it.");
    }

    /** The environments that this one follows. */
    public List<String> followed() {
        return follows.map(Criterion.Follows::environments).orElse(List.of());
    }

    /** Whether people are asked before anything enters. */
    public boolean asksPeople() {
        return !gates.toEnter().approvals().isEmpty() || !gates.toEnter().checklists().isEmpty();
    }

    private Gates own(String component) {
        return components.getOrDefault(component, Gates.NONE);
    }

    private List<Criterion> together(GateRules all, GateRules own) {
        if (replaceable && !own.saysNothing()) {
            return own.criteria();
        }
        List<Criterion> criteria = new ArrayList<>(all.criteria());
        own.criteria().stream().filter(criterion -> !criteria.contains(criterion)).forEach(criteria::add);
        return criteria;
    }
}
