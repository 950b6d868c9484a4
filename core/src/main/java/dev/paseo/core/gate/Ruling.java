package dev.paseo.core.gate;

import java.time.Instant;

/**
 * A person's recorded yes or no.
 *
 * @param subject the digest of what the person saw and decided on
 */
public record Ruling(String by, boolean yes, String comment, String subject, Instant at) {}
