package dev.paseo.core.history;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What is otherwise at a second moment than at a first. */
public final class Differences {

    private Differences() {}

    /** A place, by whose order lists of places go. */
    public record At(String component, int position, String environment) implements Comparable<At> {
        @Override
        public int compareTo(At other) {
            int order = component.compareTo(other.component);
            order = order == 0 ? Integer.compare(position, other.position) : order;
            return order == 0 ? environment.compareTo(other.environment) : order;
        }
    }

    /** What is live in a place at a moment. */
    public record LiveThen(String version, long deployment) {}

    /** A place where another version is live, or the same one by another deployment. */
    public record Changed(At place, Optional<LiveThen> before, Optional<LiveThen> after) {
        /** Whether it is the same version, deployed once more. */
        public boolean sameVersion() {
            return before.isPresent() && before.map(LiveThen::version).equals(after.map(LiveThen::version));
        }
    }

    /** What changed, in the order of places. */
    public static List<Changed> between(Map<At, LiveThen> before, Map<At, LiveThen> after) {
        TreeMap<At, LiveThen> all = new TreeMap<>(before);
        all.putAll(after);
        List<Changed> changed = new ArrayList<>();
        all.keySet().forEach(place -> {
            Changed each = new Changed(place, Optional.ofNullable(before.get(place)),
                    Optional.ofNullable(after.get(place)));
            if (!each.before().equals(each.after())) {
                changed.add(each);
            }
        });
        return changed;
    }
}
