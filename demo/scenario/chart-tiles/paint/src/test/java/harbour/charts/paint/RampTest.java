package harbour.charts.paint;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class RampTest {

    static IntStream depths() {
        return IntStream.range(0, 39);
    }

    @ParameterizedTest
    @MethodSource("depths")
    void theDeeperTheDarker(int depth) {
        assertTrue(Integer.parseInt(Ramp.colour(depth), 16) > Integer.parseInt(Ramp.colour(depth + 1), 16));
    }

    @ParameterizedTest
    @CsvSource({"-1, d8ebf0", "0, d8ebf0", "40, 103848", "4000, 103848"})
    void thereIsNothingLighterThanTheShoreOrDarkerThanTheDeep(double depth, String colour) {
        assertEquals(colour, Ramp.colour(depth));
    }
}
