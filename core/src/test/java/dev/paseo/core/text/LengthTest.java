package dev.paseo.core.text;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Duration;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LengthTest {

    @ParameterizedTest
    @CsvSource({"PT0S, 0 s, 0h", "PT0.5S, 0 s, 500ms", "PT59S, 59 s, 59s", "PT90S, 1 min 30 s, 90s",
            "PT3M20S, 3 min 20 s, 200s", "PT12M30S, 12 min, 750s", "PT2H, 2 h, 2h", "PT2H30M, 2 h 30 min, 150m",
            "PT48H, 2 d, 48h", "PT72H, 3 d, 72h", "PT336H, 14 d, 14d", "PT339H, 14 d 3 h, 339h",
            "PT8760H, 365 d, 365d"})
    void aLengthIsReadAndWritten(Duration length, String words, String written) {
        assertEquals(words, Length.of(length));
        assertEquals(written, Length.written(length));
    }
}
