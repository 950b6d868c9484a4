package dev.paseo.core.gate;

import java.time.Instant;

/**
 * What somebody found about an item of a checklist; the newest about an item counts.
 *
 * @param outcome CLEARED: it was ticked by mistake
 */
public record Tick(String item, String by, Outcome outcome, String note, Instant at) {

    public enum Outcome { DONE, FAILED, CLEARED }
}
