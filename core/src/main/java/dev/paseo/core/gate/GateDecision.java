package dev.paseo.core.gate;

import java.time.Instant;
import java.util.Optional;

/**
 * A person's recorded yes or no.
 *
 * @param inPlaceOf whose voice it was, where a deputy decided or the decision was handed on
 * @param subject what the person saw and decided on; empty for one that was kept before its parts were
 */
public record GateDecision(String by, Optional<String> inPlaceOf, boolean yes, String comment, String digest,
        Optional<Subject> subject, Instant at) {

    public GateDecision(String by, boolean yes, String comment, Subject subject, Instant at) {
        this(by, Optional.empty(), yes, comment, subject.digest(), Optional.of(subject), at);
    }
}
