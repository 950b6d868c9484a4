package dev.paseo.core.environment;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Hours;
import dev.paseo.core.gate.InWords;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What new rules ask less than the ones before them. Whatever is not surely as strict as before counts as looser: a
 * criterion that merely changed is shown, and has to be meant.
 */
public final class Loosening {

    private Loosening() {}

    /**
     * @param closedKept whether every closed period of before is still there
     * @return what would be asked less, as sentences; empty where nothing is
     */
    public static List<String> of(Rules before, Rules after, boolean closedKept) {
        Map<String, String> found = new LinkedHashMap<>();
        Set<String> components = new LinkedHashSet<>(List.of(""));
        components.addAll(before.components().keySet());
        components.addAll(after.components().keySet());
        for (String component : components) {
            lost(component, "To enter", before.toEnter(Kind.PROMOTION, component),
                    after.toEnter(Kind.PROMOTION, component), found);
            lost(component, "To go on", before.toGoOn(component), after.toGoOn(component), found);
        }
        lost("", "To roll back", before.rollback().criteria(), after.rollback().criteria(), found);
        if (!closedKept) {
            found.put("closed", "Closed periods are missing or have changed");
        }
        if (!before.takesOver() && after.takesOver()) {
            found.put("newer", "A newer version no longer waits until the one before it has gone on");
        }
        before.toLoosen().filter(was -> after.toLoosen().filter(was::containsAll).isEmpty())
                .ifPresent(was -> found.put("loosen",
                        "That one of " + String.join(", ", was) + " agrees before its rules are loosened "
                                + after.toLoosen().map(now -> "becomes that one of " + String.join(", ", now) + " does")
                                        .orElse("is no longer asked")));
        return List.copyOf(found.values());
    }

    /** Said once for all components, or for the one that alone is concerned. */
    private static void lost(String component, String gate, List<Criterion> before, List<Criterion> after,
            Map<String, String> found) {
        for (Criterion asked : before) {
            if (after.stream().noneMatch(now -> covers(now, asked))) {
                Optional<Criterion> instead = after.stream()
                        .filter(now -> now.getClass() == asked.getClass() && !before.contains(now)).findFirst();
                String sentence = gate + ": “" + InWords.of(asked) + "” "
                        + instead.map(now -> "becomes “" + InWords.of(now) + "”").orElse("is no longer asked");
                found.putIfAbsent(gate + asked, component.isEmpty() ? sentence
                        : component + ", " + sentence.substring(0, 1).toLowerCase(Locale.ROOT) + sentence.substring(1));
            }
        }
    }

    /** Whether what is asked now surely asks all that was asked before. */
    static boolean covers(Criterion now, Criterion before) {
        if (now.equals(before)) {
            return true;
        }
        return switch (before) {
            case Criterion.Approvals was -> now instanceof Criterion.Approvals is && approvals(is, was);
            case Criterion.Checklist was -> now instanceof Criterion.Checklist is && is.items().containsAll(was.items())
                    && was.from().containsAll(is.from());
            case Criterion.LiveFor(Duration was) -> now instanceof Criterion.LiveFor(Duration is)
                    && is.compareTo(was) >= 0;
            case Criterion.Open(Hours was) -> now instanceof Criterion.Open(Hours is) && hours(is, was);
            case Criterion.Fact was -> now instanceof Criterion.Fact is && is.condition().equals(was.condition());
            case Criterion.Outside was -> now instanceof Criterion.Outside is && is.name().equals(was.name())
                    && is.address().equals(was.address()) && within(is.within(), was.within());
            case Criterion.Follows was -> now instanceof Criterion.Follows is && follows(is, was);
            case Criterion.Origin was -> now instanceof Criterion.Origin is && origin(is, was);
            case Criterion.NotHeld() -> false;
            case Criterion.NotClosed() -> false;
            case Criterion.PreviousPassed() -> false;
            case Criterion.Requires() -> false;
        };
    }

    private static boolean approvals(Criterion.Approvals is, Criterion.Approvals was) {
        return was.from().containsAll(is.from()) && is.count() >= was.count()
                && new HashSet<>(is.notBy()).containsAll(was.notBy())
                && (is.commentRequired() || !was.commentRequired()) && within(is.within(), was.within())
                && (is.escalation().isEmpty() || is.escalation().equals(was.escalation()))
                && (is.asksWho() || !was.asksWho());
    }

    /** No limit is the loosest. */
    private static boolean within(Optional<Duration> is, Optional<Duration> was) {
        return was.isEmpty() || is.isPresent() && is.get().compareTo(was.get()) <= 0;
    }

    private static boolean hours(Hours is, Hours was) {
        boolean shut = is.exceptions().entrySet().stream()
                .allMatch(day -> day.getValue().isEmpty() || day.getValue().equals(was.exceptions().get(day.getKey())));
        return is.zone().equals(was.zone()) && new HashSet<>(was.windows()).containsAll(is.windows()) && shut
                && is.exceptions().keySet().containsAll(was.exceptions().keySet());
    }

    private static boolean follows(Criterion.Follows is, Criterion.Follows was) {
        boolean isAll = !is.any() || is.environments().size() == 1;
        List<String> both = new ArrayList<>(is.environments());
        both.retainAll(was.environments());
        if (!was.any()) {
            return isAll && is.environments().containsAll(was.environments());
        }
        return isAll ? !both.isEmpty() : was.environments().containsAll(is.environments());
    }

    /** Trusted branches are the service's, named ones the rule's: neither is part of the other. */
    private static boolean origin(Criterion.Origin is, Criterion.Origin was) {
        return is.branches().isEmpty() == was.branches().isEmpty() && was.branches().containsAll(is.branches())
                && was.tags().containsAll(is.tags())
                && (was.uploads() || !is.uploads()) && is.tags().isEmpty() == was.tags().isEmpty();
    }
}
