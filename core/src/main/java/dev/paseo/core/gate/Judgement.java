package dev.paseo.core.gate;

import java.time.Instant;
import java.util.Optional;

/**
 * How a criterion stands.
 *
 * @param name     a few words that name it
 * @param sentence why it is met or not
 * @param until    when time alone changes it
 * @param nobody   somebody is asked, and nobody is left who may
 */
public record Judgement(State state, String name, String sentence, Optional<Instant> until, boolean nobody) {

    public Judgement(State state, String name, String sentence, Optional<Instant> until) {
        this(state, name, sentence, until, false);
    }

    /** The states of a criterion. */
    public enum State { MET, NOT_YET, ASKED, NOT_MET }
}
