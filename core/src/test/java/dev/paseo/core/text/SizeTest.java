package dev.paseo.core.text;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SizeTest {

    @ParameterizedTest
    @CsvSource({"0, 0 bytes", "1, 1 byte", "999, 999 bytes", "1000, 1 kB", "1049, 1 kB", "1050, 1.1 kB",
            "999949, 999.9 kB", "999950, 1 MB", "8388608, 8.4 MB", "17179869184, 17.2 GB", "536870912000, 536.9 GB",
            "9223372036854775807, 9223.4 PB"})
    void isWrittenInPowersOfTen(long bytes, String words) {
        assertEquals(words, Size.words(bytes));
    }

    @ParameterizedTest
    @CsvSource({"500GB, 500000000000", "0bytes, 0", "1 kB, 1000", "2MB, 2000000"})
    void isReadAsItIsWritten(String written, long bytes) {
        assertEquals(bytes, Size.of(written).bytes());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "500", "500GiB", "500gb", "-1MB", "1.5MB", "99999PB", "9999999999999999bytes"})
    void whatIsNoSizeIsToldWithWhatIs(String written) {
        assertEquals("should be a size such as 500GB, in bytes, kB, MB, GB, TB or PB; got “" + written + "”",
                assertThrows(IllegalArgumentException.class, () -> Size.of(written)).getMessage());
    }
}
