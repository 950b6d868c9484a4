package park.maps.paint;

/** Colours from valley to summit. */
public final class Ramp {

    private static final double SUMMIT = 2000;

    private Ramp() {}

    /** As RRGGBB in hexadecimal; the higher, the darker. Heights in metres. */
    public static String colour(double height) {
        double share = Math.clamp(height / SUMMIT, 0, 1);
        return "%02x%02x%02x".formatted(mix(216, 16, share), mix(235, 56, share), mix(240, 72, share));
    }

    private static int mix(int valley, int summit, double share) {
        return (int) Math.round(valley + (summit - valley) * share);
    }
}
