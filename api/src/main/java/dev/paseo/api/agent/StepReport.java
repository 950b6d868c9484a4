package dev.paseo.api.agent;

import java.time.Instant;
import java.util.Optional;

/**
 * How far one try of a step is.
 *
 * @param tried    counts from 1
 * @param exitCode once it has ended by itself
 */
public record StepReport(
        long fence, int position, int tried, String name, Status status, Optional<Integer> exitCode, Instant startedAt,
        Optional<Instant> endedAt) {

    /** The states of a step. */
    public enum Status { RUNNING, PASSED, FAILED, STOPPED }
}
