package dev.paseo.service.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import org.junit.jupiter.api.function.Executable;

/** What a refusal says. */
public final class Refused {

    private Refused() {}

    public static String by(Refusal.Kind kind, Executable what) {
        Refusal refusal = assertThrows(Refusal.class, what);
        assertEquals(kind, refusal.kind(), String.valueOf(refusal.getMessage()));
        return String.valueOf(refusal.getMessage());
    }

    /** What is wrong with the field that this JSON pointer names. */
    public static String field(String pointer, Executable what) {
        Refusal refusal = assertThrows(Refusal.class, what);
        assertEquals(pointer, refusal.pointer().orElse("none"), String.valueOf(refusal.getMessage()));
        return String.valueOf(refusal.getMessage());
    }
}
