package park.maps.paint;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class RampTest {

    static IntStream heights() {
        return IntStream.range(0, 39);
    }

    @ParameterizedTest
    @MethodSource("heights")
    void theHigherTheDarker(int height) {
        assertTrue(Integer.parseInt(Ramp.colour(50 * height), 16) > Integer.parseInt(Ramp.colour(50 * (height + 1)), 16));
    }

    @ParameterizedTest
    @CsvSource({"-1, d8ebf0", "0, d8ebf0", "2000, 103848", "8848, 103848"})
    void thereIsNothingLighterThanTheValleyOrDarkerThanTheSummit(double height, String colour) {
        assertEquals(colour, Ramp.colour(height));
    }
}
