package dev.paseo.core.environment;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.InWords;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** An environment's rules, and those that they would be. */
public record RulesChange(Rules known, Rules wanted) {

    /** What is asked of this component at a gate. */
    public List<Criterion> before(GateSide side, Kind kind, String component) {
        return asked(known, side, kind, component);
    }

    /** What would be asked of it. */
    public List<Criterion> after(GateSide side, Kind kind, String component) {
        return asked(wanted, side, kind, component);
    }

    private static List<Criterion> asked(Rules rules, GateSide side, Kind kind, String component) {
        return side == GateSide.TO_GO_ON ? rules.toGoOn(component) : rules.toEnter(kind, component);
    }

    /** What is asked more, in words, each after the component whose own gate it is, if any. */
    public List<String> more() {
        return words(true);
    }

    /** What is no longer asked, or not surely as strictly; as {@link #more}. */
    public List<String> less() {
        return words(false);
    }

    private List<String> words(boolean more) {
        Set<String> all = new LinkedHashSet<>(words(GateSide.TO_ENTER, more));
        all.addAll(words(GateSide.TO_GO_ON, more));
        all.addAll(words(GateSide.ROLLBACK, more));
        return List.copyOf(all);
    }

    private Set<String> words(GateSide side, boolean more) {
        Kind kind = side == GateSide.ROLLBACK ? Kind.ROLLBACK : Kind.PROMOTION;
        Set<String> words = new LinkedHashSet<>();
        components().forEach(component -> {
            List<Criterion> before = before(side, kind, component);
            List<Criterion> after = after(side, kind, component);
            (more ? DryRun.more(before, after) : DryRun.less(before, after)).stream().map(InWords::of)
                    .filter(text -> !words.contains(text))
                    .forEach(text -> words.add(component.isEmpty() ? text : component + ": " + text));
        });
        return words;
    }

    /** Those with a gate of their own, after the empty name, which has none. */
    private Set<String> components() {
        Set<String> all = new LinkedHashSet<>(List.of(""));
        all.addAll(known.components().keySet());
        all.addAll(wanted.components().keySet());
        return all;
    }

    /** Whether something is asked at this gate that was not, or the other way round. */
    public boolean changes(GateSide side) {
        return !words(side, true).isEmpty() || !words(side, false).isEmpty();
    }

    /** Whether a gate changes at all. */
    public boolean matters() {
        return changes(GateSide.TO_ENTER) || changes(GateSide.TO_GO_ON) || changes(GateSide.ROLLBACK);
    }
}
