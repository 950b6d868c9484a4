package dev.paseo.core.quota;

import dev.paseo.core.text.Size;
import java.math.BigDecimal;
import java.util.Optional;

/**
 * How many bytes a component may have kept: artifacts, files between stages, reports, logs, folders to reuse, uploads.
 * What came twice counts twice.
 *
 * @param most in bytes, at least 1
 */
public record Quota(long most) {

    /** People are told when this many hundredths are taken. */
    private static final int NEARLY = 80;

    /** Whether there is room for so many bytes more. */
    public boolean takes(long taken, long more) {
        return taken < most && more <= most - taken;
    }

    /** Why so much more is not taken; empty where it is. */
    public Optional<String> full(String component, long taken, long more) {
        if (takes(taken, more)) {
            return Optional.empty();
        }
        return Optional
                .of(component + " has " + words(taken)
                        + (taken >= most ? "" : "; " + Size.words(more) + " more are too many")
                        + ": an operator allows more in paseo.kept-per-component");
    }

    /** What people are told before nothing more is taken; empty where it is not near. */
    public Optional<String> nearly(String component, long taken) {
        return taken < BigDecimal.valueOf(most).multiply(BigDecimal.valueOf(NEARLY, 2)).longValue() ? Optional.empty()
                : Optional.of(component + " has " + words(taken) + ": then nothing more is taken, and its runs fail");
    }

    /** How much is taken of what may be. */
    public String words(long taken) {
        return Size.words(taken) + " kept, of " + Size.words(most) + " that it may";
    }

    /** How many more bytes there is room for; 0 where it is full. */
    public long left(long taken) {
        return Math.max(0, most - taken);
    }
}
