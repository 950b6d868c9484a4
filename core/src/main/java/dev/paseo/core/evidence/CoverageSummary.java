package dev.paseo.core.evidence;

import java.util.List;
import java.util.Optional;

/**
 * What coverage reports say.
 *
 * @param branches absent where the reports count none
 * @param groups   packages, as the reports name them
 */
public record CoverageSummary(Counted lines, Optional<Counted> branches, List<Group> groups) {

    /** So many of so many. */
    public record Counted(long covered, long total) {

        /** From 0 to 1; of nothing there is no share. */
        public Optional<Double> share() {
            return total == 0 ? Optional.empty() : Optional.of((double) covered / total);
        }

        public Counted plus(Counted more) {
            return new Counted(covered + more.covered, total + more.total);
        }
    }

    public record Group(String name, Counted lines) {}

    public CoverageSummary {
        groups = List.copyOf(groups);
    }
}
