package harbour.charts.depth;

import harbour.charts.grid.Tile;
import java.util.List;

/** Soundings of a tile, and the depth between them by inverse distance. */
public record Soundings(Tile tile, List<Sounding> all) {

    /** A depth in metres at a place within its tile, each from 0 to 1. */
    public record Sounding(double x, double y, double depth) {}

    public double depth(double x, double y) {
        double weights = 0;
        double sum = 0;
        for (Sounding each : all) {
            double distance = Math.hypot(each.x() - x, each.y() - y);
            if (distance < 1e-9) {
                return each.depth();
            }
            weights += 1 / (distance * distance);
            sum += each.depth() / (distance * distance);
        }
        return sum / weights;
    }
}
