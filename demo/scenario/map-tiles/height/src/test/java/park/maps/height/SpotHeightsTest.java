package park.maps.height;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import park.maps.grid.Tile;
import park.maps.height.SpotHeights.SpotHeight;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class SpotHeightsTest {

    private static final SpotHeights VALLEY = new SpotHeights(new Tile(0, 0, 0),
            List.of(new SpotHeight(0, 0, 640), new SpotHeight(1, 0, 910), new SpotHeight(0, 1, 1220), new SpotHeight(1, 1, 1980)));

    static IntStream steps() {
        return IntStream.rangeClosed(0, 50);
    }

    @ParameterizedTest
    @MethodSource("steps")
    void noHeightIsOutsideWhatWasMeasured(int step) {
        double height = VALLEY.height(step / 50.0, (step * 7 % 51) / 50.0);
        assertTrue(height >= 640 && height <= 1980, () -> "height " + height);
    }

    @ParameterizedTest
    @MethodSource("steps")
    void aSpotHasItsOwnHeight(int step) {
        SpotHeight spot = VALLEY.all().get(step % 4);
        assertEquals(spot.height(), VALLEY.height(spot.x(), spot.y()));
    }
}
