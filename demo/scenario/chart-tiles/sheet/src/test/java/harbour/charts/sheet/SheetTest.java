package harbour.charts.sheet;

import static org.junit.jupiter.api.Assertions.assertEquals;

import harbour.charts.depth.Soundings;
import harbour.charts.grid.Tile;
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
        Soundings soundings = new Soundings(new Tile(0, 0, 0), List.of(new Soundings.Sounding(0, 0, 3), new Soundings.Sounding(1, 1, 20)));
        assertEquals(cells * cells, Sheet.svg(soundings, cells).split("<rect", -1).length - 1);
    }
}
