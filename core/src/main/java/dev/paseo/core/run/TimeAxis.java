package dev.paseo.core.run;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Where the time of a run went: since when each attempt could have begun, and for which ones the end waited. */
public final class TimeAxis {

    private TimeAxis() {}

    /**
     * An attempt of a stage.
     *
     * @param waitsFor names of the stages that have to end before it begins
     */
    public record Attempt(String name, String variant, int number, List<String> waitsFor, Optional<Instant> began,
            Optional<Instant> ended) {}

    /**
     * What is said of an attempt.
     *
     * @param ready    from when on it waited for an agent alone; empty: it did not get so far, was skipped, or was
     *                 resumed
     * @param critical whether the run would have ended earlier had it been faster
     */
    public record Lane(Optional<Instant> ready, boolean critical) {}

    /** @param began when the run's turn came; the answer has one lane for each attempt, in their order */
    public static List<Lane> of(Optional<Instant> began, List<Attempt> attempts) {
        Set<Attempt> critical = critical(attempts);
        List<Lane> lanes = new ArrayList<>();
        for (Attempt attempt : attempts) {
            lanes.add(new Lane(attempt.number() > 1 ? Optional.empty() : ready(began, attempt, attempts),
                    critical.contains(attempt)));
        }
        return lanes;
    }

    private static Optional<Instant> ready(Optional<Instant> began, Attempt attempt, List<Attempt> attempts) {
        if (attempt.began().isEmpty() && attempt.ended().isPresent()) {
            return Optional.empty();
        }
        if (attempt.waitsFor().isEmpty()) {
            return began;
        }
        boolean open = attempt.began().isEmpty() && attempts.stream()
                .anyMatch(each -> attempt.waitsFor().contains(each.name()) && each.ended().isEmpty());
        return open ? Optional.empty() : last(attempt, attempts).flatMap(Attempt::ended);
    }

    /** Of what an attempt waited for, that which ended last before it began. */
    private static Optional<Attempt> last(Attempt attempt, List<Attempt> attempts) {
        Stream<Attempt> before = attempts.stream()
                .filter(each -> attempt.waitsFor().contains(each.name()) && each.ended().isPresent())
                .filter(each -> attempt.began().isEmpty() || !each.ended().get().isAfter(attempt.began().get()));
        return before.max(Comparator.comparing(each -> each.ended().orElseThrow()));
    }

    /** Back from the attempt that ended last. */
    private static Set<Attempt> critical(List<Attempt> attempts) {
        Set<Attempt> critical = new HashSet<>();
        Optional<Attempt> at = attempts.stream().filter(each -> each.began().isPresent() && each.ended().isPresent())
                .max(Comparator.comparing(each -> each.ended().orElseThrow()));
        while (at.isPresent() && critical.add(at.get())) {
            at = last(at.get(), attempts);
        }
        return critical;
    }
}
