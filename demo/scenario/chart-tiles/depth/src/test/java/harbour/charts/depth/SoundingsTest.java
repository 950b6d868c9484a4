package harbour.charts.depth;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import harbour.charts.depth.Soundings.Sounding;
import harbour.charts.grid.Tile;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class SoundingsTest {

    private static final Soundings BAY = new Soundings(new Tile(0, 0, 0),
            List.of(new Sounding(0, 0, 4), new Sounding(1, 0, 9), new Sounding(0, 1, 12), new Sounding(1, 1, 30)));

    static IntStream steps() {
        return IntStream.rangeClosed(0, 50);
    }

    @ParameterizedTest
    @MethodSource("steps")
    void noDepthIsOutsideWhatWasSounded(int step) {
        double depth = BAY.depth(step / 50.0, (step * 7 % 51) / 50.0);
        assertTrue(depth >= 4 && depth <= 30, () -> "depth " + depth);
    }

    @ParameterizedTest
    @MethodSource("steps")
    void aSoundingIsItsOwnDepth(int step) {
        Sounding sounding = BAY.all().get(step % 4);
        assertEquals(sounding.depth(), BAY.depth(sounding.x(), sounding.y()));
    }
}
