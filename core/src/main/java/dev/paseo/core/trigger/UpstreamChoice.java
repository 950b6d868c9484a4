package dev.paseo.core.trigger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** With which versions of its upstream components a run starts, or why it does not yet. */
public final class UpstreamChoice {

    private UpstreamChoice() {}

    /**
     * A version of an upstream component.
     *
     * @param id        grows with every version that is sealed
     * @param builtFrom what it was built from, at any remove: component to its versions
     */
    public record Candidate(long id, String component, String number, Map<String, Set<String>> builtFrom) {

        private Set<String> versionsOf(String ancestor) {
            return ancestor.equals(component) ? Set.of(number) : builtFrom.getOrDefault(ancestor, Set.of());
        }

        private Set<String> lineage() {
            Set<String> all = new java.util.TreeSet<>(builtFrom.keySet());
            all.add(component);
            return all;
        }

        /** An ancestor of which the two have different versions. */
        private Optional<String> clash(Candidate other) {
            return lineage().stream().filter(ancestor -> !other.versionsOf(ancestor).isEmpty()
                    && !versionsOf(ancestor).equals(other.versionsOf(ancestor))).findFirst();
        }
    }

    /** What follows. */
    public sealed interface Choice {

        /** @param versions of each upstream component that comes with the start */
        record Starts(List<Candidate> versions) implements Choice {}

        record Waits(String reason) implements Choice {}
    }

    /**
     * Chooses for a trigger when one of its upstream components has sealed a version.
     *
     * @param happened the version that was sealed
     * @param sealed   of each upstream component its newest versions, the newest first
     * @param used     the id of the version of each that the line used last; none used: absent
     */
    public static Choice choose(Trigger.Novelty together, Candidate happened, Map<String, List<Candidate>> sealed,
            Map<String, Long> used) {
        if (!isNew(happened, used)) {
            return new Choice.Waits(happened.component() + " " + happened.number() + " was used already");
        }
        if (together == Trigger.Novelty.ANY) {
            return new Choice.Starts(List.of(happened));
        }
        Map<String, List<Candidate>> fresh = new LinkedHashMap<>();
        for (Map.Entry<String, List<Candidate>> each : sealed.entrySet()) {
            List<Candidate> unused = each.getValue().stream().filter(candidate -> isNew(candidate, used)).toList();
            if (unused.isEmpty()) {
                return new Choice.Waits(each.getValue().isEmpty() ? each.getKey() + " has no version yet"
                        : "waits for a new version of " + each.getKey() + ": " + each.getValue().getFirst().number()
                                + " was used already");
            }
            fresh.put(each.getKey(), unused);
        }
        if (together == Trigger.Novelty.ALL) {
            return new Choice.Starts(fresh.values().stream().map(List::getFirst).toList());
        }
        return consistent(List.copyOf(fresh.values()), new ArrayList<>()).<Choice>map(Choice.Starts::new)
                .orElseGet(() -> new Choice.Waits(clash(fresh)));
    }

    private static boolean isNew(Candidate candidate, Map<String, Long> used) {
        return candidate.id() > used.getOrDefault(candidate.component(), 0L);
    }

    /** The newest of the first that goes with the newest possible of the others. */
    private static Optional<List<Candidate>> consistent(List<List<Candidate>> left, List<Candidate> chosen) {
        if (chosen.size() == left.size()) {
            return Optional.of(List.copyOf(chosen));
        }
        for (Candidate candidate : left.get(chosen.size())) {
            if (chosen.stream().allMatch(other -> other.clash(candidate).isEmpty())) {
                chosen.add(candidate);
                Optional<List<Candidate>> found = consistent(left, chosen);
                if (found.isPresent()) {
                    return found;
                }
                chosen.removeLast();
            }
        }
        return Optional.empty();
    }

    private static String clash(Map<String, List<Candidate>> fresh) {
        List<Candidate> newest = fresh.values().stream().map(List::getFirst).toList();
        for (Candidate one : newest) {
            for (Candidate other : newest) {
                Optional<String> ancestor = one.clash(other);
                if (ancestor.isPresent()) {
                    return "waits for versions that agree: " + said(one, ancestor.get()) + ", but "
                            + said(other, ancestor.get());
                }
            }
        }
        return "waits for versions that agree on what they were built from";
    }

    private static String said(Candidate candidate, String ancestor) {
        return candidate.component().equals(ancestor) ? ancestor + " is at " + candidate.number()
                : candidate.component() + " " + candidate.number() + " was built from " + ancestor + " "
                        + String.join(" and ", candidate.versionsOf(ancestor).stream().sorted().toList());
    }
}
