package dev.paseo.core.text;

import java.time.Duration;

/** Lengths of time, as people read and write them. */
public final class Length {

    private Length() {}

    /** In its two largest units, such as {@code 3 min 20 s}, {@code 2 h} or {@code 14 d}. */
    public static String of(Duration length) {
        long seconds = Math.max(0, length.toSeconds());
        if (seconds < 60) {
            return seconds + " s";
        }
        if (seconds < 3600) {
            return seconds / 60 + " min" + (seconds % 60 == 0 || seconds >= 600 ? "" : " " + seconds % 60 + " s");
        }
        if (seconds < 86_400) {
            return seconds / 3600 + " h" + (seconds / 60 % 60 == 0 ? "" : " " + seconds / 60 % 60 + " min");
        }
        return seconds / 86_400 + " d" + (seconds / 3600 % 24 == 0 ? "" : " " + seconds / 3600 % 24 + " h");
    }

    /** As it stands in a file, in one unit: {@code 90s}, {@code 48h}, {@code 14d}. */
    public static String written(Duration length) {
        long millis = length.toMillis();
        if (millis % 86_400_000 == 0 && millis > 3 * 86_400_000L) {
            return millis / 86_400_000 + "d";
        }
        return millis % 3_600_000 == 0 ? millis / 3_600_000 + "h" : millis % 60_000 == 0 ? millis / 60_000 + "m"
                : millis % 1000 == 0 ? millis / 1000 + "s" : millis + "ms";
    }
}
