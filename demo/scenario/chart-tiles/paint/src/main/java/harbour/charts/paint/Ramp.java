package harbour.charts.paint;

/** Colours from shoal to deep. */
public final class Ramp {

    private static final double DEEP = 40;

    private Ramp() {}

    /** As RRGGBB in hexadecimal; the deeper, the darker. Depths in metres. */
    public static String colour(double depth) {
        double share = Math.clamp(depth / DEEP, 0, 1);
        return "%02x%02x%02x".formatted(mix(216, 16, share), mix(235, 56, share), mix(240, 72, share));
    }

    private static int mix(int shoal, int deep, double share) {
        return (int) Math.round(shoal + (deep - shoal) * share);
    }
}
