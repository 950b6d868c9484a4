package dev.paseo.core.text;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** A moment as people read it: {@code 27 Nov 2026 21:47 UTC}. */
public final class When {

    private static final DateTimeFormatter FORM = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm zzz", Locale.ENGLISH);

    private static final DateTimeFormatter EXACT = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm:ss zzz",
            Locale.ENGLISH);

    private static final ZoneId UTC = ZoneId.of("UTC");

    private When() {}

    public static String utc(Instant moment) {
        return in(UTC, moment);
    }

    public static String in(ZoneId zone, Instant moment) {
        return FORM.withZone(zone).format(moment);
    }

    /** To the second. */
    public static String exactly(ZoneId zone, Instant moment) {
        return EXACT.withZone(zone).format(moment);
    }
}
