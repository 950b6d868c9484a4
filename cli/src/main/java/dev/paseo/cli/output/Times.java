package dev.paseo.cli.output;

import java.time.Duration;
import java.time.Instant;
import java.time.Year;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.Locale;
import tools.jackson.databind.JsonNode;

/** Times as people say them. */
public final class Times {

    private static final DateTimeFormatter THIS_YEAR = DateTimeFormatter.ofPattern("d MMM HH:mm:ss", Locale.ENGLISH);
    private static final DateTimeFormatter ANOTHER = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm:ss", Locale.ENGLISH);

    private Times() {}

    /** How long ago, such as {@code 3 min}; empty where there is no time. */
    public static String ago(JsonNode time, Instant now) {
        return time.isMissingNode() || time.isNull() ? ""
                : length(Duration.between(Instant.parse(time.asString()), now));
    }

    public static String length(Duration length) {
        long seconds = Math.max(0, length.toSeconds());
        if (seconds < 100) {
            return seconds + " s";
        }
        if (seconds < 100 * 60) {
            return seconds / 60 + " min";
        }
        return seconds < 48 * 3600 ? seconds / 3600 + " h" : seconds / 86400 + " d";
    }

    /** The reader's zone by name, for what is told of a zone of its own elsewhere. */
    public static String zoned(JsonNode time) {
        return time.isMissingNode() || time.isNull() ? ""
                : exact(time) + " " + ZoneId.systemDefault().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
    }

    /** In the reader's zone. */
    public static String exact(JsonNode time) {
        return time.isMissingNode() || time.isNull() ? ""
                : exact(Instant.parse(time.asString()).atZone(ZoneId.systemDefault()), Year.now());
    }

    /** The year is left out where it is this one. */
    static String exact(ZonedDateTime time, Year now) {
        return (time.getYear() == now.getValue() ? THIS_YEAR : ANOTHER).format(time);
    }
}
