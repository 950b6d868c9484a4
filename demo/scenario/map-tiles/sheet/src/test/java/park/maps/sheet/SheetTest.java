package park.maps.sheet;

import static org.junit.jupiter.api.Assertions.assertEquals;

import park.maps.height.SpotHeights;
import park.maps.grid.Tile;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class SheetTest {

    static IntStream sizes() {
        return IntStream.rangeClosed(1, 20);
    }

    @ParameterizedTest
    @MethodSource("sizes")
    void aSheetHasAllItsCells(int cells) {
        SpotHeights heights = new SpotHeights(new Tile(0, 0, 0), List.of(new SpotHeights.SpotHeight(0, 0, 3), new SpotHeights.SpotHeight(1, 1, 20)));
        assertEquals(cells * cells, Sheet.svg(heights, cells).split("<rect", -1).length - 1);
    }
}
