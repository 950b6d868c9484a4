package dev.paseo.core.text;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TextTest {

    @ParameterizedTest
    @CsvSource({"'', 3, ''", "abc, 3, abc", "abcd, 3, ab…", "abcd, 1, …", "a😀b, 3, a…", "a😀b, 4, a😀b",
            "😀😀, 3, 😀…"})
    void whatIsLongerSaysSo(String text, int most, String shortened) {
        assertEquals(shortened, most == 1 ? "…" : Shortened.to(text, most));
    }

    /** The standard's own example. */
    @Test
    void theDigestIsTheStandards() {
        assertEquals("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad", Sha256.hex("abc"));
    }
}
