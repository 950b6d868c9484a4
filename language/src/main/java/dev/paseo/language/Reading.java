package dev.paseo.language;

import java.util.List;
import java.util.Optional;

/**
 * What reading a file gave.
 *
 * @param value    what the file says; empty where it has problems
 * @param problems all of them, in the order of the file
 */
public record Reading<T>(Optional<T> value, List<Problem> problems) {
    public Reading {
        problems = problems.stream().sorted().toList();
    }
}
