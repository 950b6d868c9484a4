package dev.paseo.api.agent;

import java.time.Instant;
import java.util.Optional;

/**
 * How far one try of a step is.
 *
 * @param tried    counts from 1
 * @param exitCode once it has ended by itself
 * @param peakMemory the most memory that its processes held together, in bytes, as far as it was seen
 */
public record StepReport(
        long fence, int position, int tried, String name, Status status, Optional<Integer> exitCode, Instant startedAt,
        Optional<Instant> endedAt, Optional<Long> peakMemory) {

    /** The states of a step. */
    public enum Status { RUNNING, PASSED, FAILED, STOPPED }
}
