package dev.paseo.core.environment;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * Who agrees to a loosening before it counts: for each environment that asks so, one of those whom it names, and never
 * who wants it.
 *
 * @param by     who wants it
 * @param asked  the accounts that may agree, by environment
 * @param agreed the accounts that have
 */
public record Agreement(String by, Map<String, Set<String>> asked, Set<String> agreed) {

    /** What nobody agreed to in this time is wanted anew. */
    public static final Duration EXPIRES = Duration.ofDays(7);

    public Agreement {
        asked = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(asked));
        agreed = Set.copyOf(agreed);
    }

    /** The environments for which nobody has agreed yet. */
    public List<String> open() {
        return asked.entrySet().stream().filter(
                each -> each.getValue().stream().noneMatch(person -> agreed.contains(person) && !person.equals(by)))
                .map(Map.Entry::getKey).toList();
    }

    /** Why this person may neither agree nor refuse; empty where they may. */
    public Optional<String> refusal(String person) {
        if (person.equals(by)) {
            return Optional.of(by + " wants it, and somebody else agrees to it");
        }
        if (agreed.contains(person)) {
            return Optional.of(person + " has agreed already");
        }
        return open().stream().anyMatch(environment -> asked.get(environment).contains(person)) ? Optional.empty()
                : Optional.of("You are not asked: for " + String.join(" and ", open()) + " one of "
                        + String.join(", ", people()) + " agrees");
    }

    /** Who may agree now. */
    public Set<String> people() {
        Set<String> people = new TreeSet<>();
        open().forEach(environment -> people.addAll(asked.get(environment)));
        people.remove(by);
        people.removeAll(agreed);
        return people;
    }

    public static boolean expired(Instant wanted, Instant now) {
        return !now.isBefore(wanted.plus(EXPIRES));
    }
}
