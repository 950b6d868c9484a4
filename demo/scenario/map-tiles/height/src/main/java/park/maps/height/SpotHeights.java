package park.maps.height;

import park.maps.grid.Tile;
import java.util.List;

/** Measured heights of a tile, and the height between them by inverse distance. */
public record SpotHeights(Tile tile, List<SpotHeight> all) {

    /** A height in metres at a place within its tile, each from 0 to 1. */
    public record SpotHeight(double x, double y, double height) {}

    public double height(double x, double y) {
        double weights = 0;
        double sum = 0;
        for (SpotHeight each : all) {
            double distance = Math.hypot(each.x() - x, each.y() - y);
            if (distance < 1e-9) {
                return each.height();
            }
            weights += 1 / (distance * distance);
            sum += each.height() / (distance * distance);
        }
        return sum / weights;
    }
}
