package harbour.tide;

import harbour.tide.model.Tide;
import java.time.Instant;
import java.time.ZoneId;

/** What is told about a day's tide. */
final class Predictions {

    private Predictions() {}

    /** The height in whole millimetres. */
    static long rounded(double height) {
        return Math.round(height);
    }

    /** Now and the next high water, as JSON; times are in the given zone. */
    static String today(Instant now, ZoneId zone, String version) {
        Instant high = Tide.nextHigh(now);
        return "{\"now\":\"" + now.atZone(zone).toOffsetDateTime() + "\",\"height_mm\":" + rounded(Tide.height(now))
                + ",\"next_high\":\"" + high.atZone(zone).toOffsetDateTime() + "\",\"next_high_mm\":" + rounded(Tide.height(high))
                + ",\"by\":\"tide-api " + version + "\"}";
    }
}
