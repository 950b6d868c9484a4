package park.maps.grid;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class TileTest {

    static Stream<Arguments> positions() {
        return IntStream.range(0, 80).mapToObj(at -> Arguments.of(-80 + at * 2.0, -179 + at * 4.5, at % 18));
    }

    @ParameterizedTest
    @MethodSource("positions")
    void everyZoomHoldsTheNext(double latitude, double longitude, int zoom) {
        assertTrue(Tile.at(latitude, longitude, zoom).holds(Tile.at(latitude, longitude, zoom + 2)));
    }

    @ParameterizedTest
    @CsvSource({"0, 0, 1, 1, 1", "43.35, -3.02, 8, 125, 93", "-36.85, 174.76, 4, 15, 9"})
    void aPositionHasItsTile(double latitude, double longitude, int zoom, int column, int row) {
        assertEquals(new Tile(zoom, column, row), Tile.at(latitude, longitude, zoom));
    }

    @Test
    void thereIsNoTileOutsideTheWorld() {
        assertThrows(IllegalArgumentException.class, () -> new Tile(2, 4, 0));
    }
}
