package park.sun;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;

/** Tests without a framework; they write JUnit XML into the folder given. */
public final class SunTests {

    /** As published by the U.S. Naval Observatory, in UTC: the table of 2007 for Atlanta, Georgia, and the day's page for Bluffton, Ohio. */
    private static final String[] PUBLISHED = {
        "Atlanta 33.7667 -84.4167 2007-01-15 12:42 22:52", "Atlanta 33.7667 -84.4167 2007-03-20 11:42 23:49",
        "Atlanta 33.7667 -84.4167 2007-06-21 10:27 00:51", "Atlanta 33.7667 -84.4167 2007-09-23 11:26 23:33",
        "Atlanta 33.7667 -84.4167 2007-10-31 11:56 22:46", "Atlanta 33.7667 -84.4167 2007-12-21 12:38 22:33",
        "Bluffton 40.8939 -83.8917 2018-09-12 11:13 23:50",
    };

    /** Sunrise and sunset, in UTC, to the minute, each within two minutes of an independent ephemeris: town, degrees north, degrees east, day, sunrise, sunset. */
    private static final String[] ALMANAC = {
        "London 51.51 -0.13 2026-03-20 06:05 18:14", "London 51.51 -0.13 2026-06-21 03:43 20:21",
        "London 51.51 -0.13 2026-09-23 05:48 17:57", "London 51.51 -0.13 2026-12-21 08:04 15:53",
        "Madrid 40.42 -3.70 2026-06-21 04:44 19:48", "Madrid 40.42 -3.70 2026-12-21 07:34 16:51",
        "Quito -0.18 -78.47 2026-03-20 11:17 23:24", "Sydney -33.87 151.21 2026-06-21 21:00 06:54",
        "Sydney -33.87 151.21 2026-12-21 18:40 09:05", "New-York 40.71 -74.01 2026-06-21 09:25 00:31",
        "New-York 40.71 -74.01 2026-12-21 12:17 21:32", "Reykjavik 64.15 -21.94 2026-06-21 02:55 00:03",
        "Reykjavik 64.15 -21.94 2026-12-21 11:22 15:29",
    };

    private SunTests() {}

    private static Map<String, BooleanSupplier> tests() {
        Map<String, BooleanSupplier> tests = new LinkedHashMap<>();
        for (String line : Stream.of(PUBLISHED, ALMANAC).flatMap(Stream::of).toList()) {
            String[] part = line.split(" ");
            Sun.Place place = new Sun.Place(Double.parseDouble(part[1]), Double.parseDouble(part[2]));
            Optional<Sun.Day> day = Sun.day(place, LocalDate.parse(part[3]));
            tests.put("sunrise as in the almanac, " + part[0] + " " + part[3], () -> day.filter(found -> near(found.sunrise(), part[4])).isPresent());
            tests.put("sunset as in the almanac, " + part[0] + " " + part[3], () -> day.filter(found -> near(found.sunset(), part[5])).isPresent());
        }
        for (int month = 1; month <= 12; month++) {
            LocalDate date = LocalDate.of(2026, month, 15);
            tests.put("day and night are nearly equal at the equator, " + date, () -> Math.abs(light(0, date).toMinutes() - 727) <= 2);
            tests.put("the longer day is in the hemisphere of summer, " + date,
                    () -> (light(45, date).compareTo(light(-45, date)) > 0) == (date.getMonthValue() >= 4 && date.getMonthValue() <= 9));
        }
        tests.put("the sun does not set beyond the polar circle in June", () -> Sun.day(new Sun.Place(69.65, 18.96), LocalDate.of(2026, 6, 21)).isEmpty());
        tests.put("the sun does not rise beyond the polar circle in December", () -> Sun.day(new Sun.Place(69.65, 18.96), LocalDate.of(2026, 12, 21)).isEmpty());
        tests.put("a place that is nowhere is refused", SunTests::nowhere);
        return tests;
    }

    /** Within two minutes of what is published, also over midnight. */
    private static boolean near(Instant worked, String published) {
        long apart = Math.abs(Duration.between(worked.atOffset(ZoneOffset.UTC).toLocalTime(), LocalTime.parse(published)).toSeconds());
        return Math.min(apart, 86_400 - apart) <= 120;
    }

    private static Duration light(double north, LocalDate date) {
        Sun.Day day = Sun.day(new Sun.Place(north, 0), date).orElseThrow();
        return Duration.between(day.sunrise(), day.sunset());
    }

    private static boolean nowhere() {
        try {
            return new Sun.Place(91, 0) == null;
        } catch (IllegalArgumentException refused) {
            return true;
        }
    }

    public static void main(String[] arguments) throws IOException {
        Map<String, BooleanSupplier> tests = tests();
        StringBuilder xml = new StringBuilder("<testsuite name=\"SunTests\" tests=\"" + tests.size() + "\">\n");
        int failed = 0;
        for (Map.Entry<String, BooleanSupplier> test : tests.entrySet()) {
            long began = System.nanoTime();
            boolean passed = test.getValue().getAsBoolean();
            failed += passed ? 0 : 1;
            xml.append("  <testcase classname=\"SunTests\" name=\"").append(test.getKey()).append("\" time=\"")
                    .append((System.nanoTime() - began) / 1e9).append("\">").append(passed ? "" : "<failure message=\"does not hold\"/>").append("</testcase>\n");
        }
        Files.writeString(Path.of(arguments[0], "sun.xml"), xml + "</testsuite>\n");
        System.out.println(tests.size() - failed + " of " + tests.size() + " tests passed");
        System.exit(failed > 0 ? 1 : 0);
    }
}
