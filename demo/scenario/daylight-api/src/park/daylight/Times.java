package park.daylight;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.stream.Collectors;
import park.sun.Sun;

/** What is told about a day at the huts. */
final class Times {

    /** A hut, and how long one walks back from there to where the path begins. */
    record Hut(String name, Sun.Place place, Duration wayBack) {}

    static final List<Hut> HUTS = List.of(
            new Hut("north-hut", new Sun.Place(42.68, 0.03), Duration.ofMinutes(150)),
            new Hut("ridge-hut", new Sun.Place(42.65, 0.07), Duration.ofMinutes(210)),
            new Hut("valley-house", new Sun.Place(42.62, 0.02), Duration.ofMinutes(40)));

    private Times() {}

    /** A length of time in whole minutes. */
    static long rounded(Duration length) {
        return Math.round(length.toSeconds() / 60.0);
    }

    /** When one has to turn back at a hut to be down at sunset. */
    static Instant turnBack(Hut hut, Sun.Day day) {
        return day.sunrise().plus(rounded(Duration.between(day.sunrise(), day.sunset().minus(hut.wayBack()))), ChronoUnit.MINUTES);
    }

    /** Sunrise, sunset and the time to turn back, at each hut, as JSON; times are in the given zone. */
    static String of(LocalDate date, ZoneId zone, String version) {
        return HUTS.stream().map(hut -> Sun.day(hut.place(), date).map(day -> hut(hut, day, zone)).orElseThrow())
                .collect(Collectors.joining(",", "{\"day\":\"" + date + "\",\"huts\":[", "],\"by\":\"daylight-api " + version + "\"}"));
    }

    private static String hut(Hut hut, Sun.Day day, ZoneId zone) {
        return "{\"hut\":\"" + hut.name() + "\",\"sunrise\":\"" + clock(day.sunrise(), zone) + "\",\"sunset\":\"" + clock(day.sunset(), zone)
                + "\",\"turn_back\":\"" + clock(turnBack(hut, day), zone) + "\"}";
    }

    static String clock(Instant at, ZoneId zone) {
        return at.atZone(zone).toLocalTime().truncatedTo(ChronoUnit.MINUTES).toString();
    }
}
