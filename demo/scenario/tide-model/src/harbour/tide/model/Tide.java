package harbour.tide.model;

import java.time.Duration;
import java.time.Instant;

/** Predicts the height of the tide from harmonic constituents. */
public final class Tide {

    /** A constituent: its amplitude in millimetres, its speed in degrees an hour, its phase in degrees. */
    record Constituent(String name, double amplitude, double speed, double phase) {}

    private static final Instant EPOCH = Instant.parse("2020-01-01T00:00:00Z");
    private static final Constituent[] HARBOUR = {
        new Constituent("M2", 1180, 28.9841042, 94), new Constituent("S2", 410, 30.0, 121),
        new Constituent("N2", 250, 28.4397295, 72), new Constituent("K1", 70, 15.0410686, 63),
        new Constituent("O1", 60, 13.9430356, 310),
    };

    /** The mean height above chart datum, in millimetres. */
    public static final int MEAN = 2100;

    private Tide() {}

    /** The height above chart datum, in millimetres. */
    public static double height(Instant at) {
        double hours = Duration.between(EPOCH, at).toMillis() / 3_600_000.0;
        double height = MEAN;
        for (Constituent each : HARBOUR) {
            height += each.amplitude() * Math.cos(Math.toRadians(each.speed() * hours - each.phase()));
        }
        return height;
    }

    /** The next high water: the first turning point from rising to falling, to the minute. */
    public static Instant nextHigh(Instant from) {
        Instant at = from;
        while (!(height(at.plusSeconds(60)) < height(at) && height(at) >= height(at.minusSeconds(60)))) {
            at = at.plusSeconds(60);
        }
        return at;
    }
}
