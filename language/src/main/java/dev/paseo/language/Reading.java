package dev.paseo.language;

import java.util.List;
import java.util.Optional;

/**
 * What reading a file gave.
 *
 * @param value    what the file says; empty where it has problems
 * @param problems all of them, in the order of the file
 * @param warnings what keeps the file from nothing, and should be changed all the same
 */
public record Reading<T>(Optional<T> value, List<Problem> problems, List<Problem> warnings) {
    public Reading {
        problems = problems.stream().sorted().toList();
        warnings = warnings.stream().sorted().toList();
    }
}
