package harbour.tide;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;

/** Tests without a framework; they write JUnit XML into the folder given. */
public final class TideTests {

    private static final Instant NOON = Instant.parse("2026-03-20T12:00:00Z");

    private TideTests() {}

    public static void main(String[] arguments) throws IOException {
        Map<String, Boolean> results = new LinkedHashMap<>();
        results.put("heightStaysWithinTheSumOfTheAmplitudes", Math.abs(Tide.height(NOON) - Tide.MEAN) <= 1970);
        results.put("nextHighIsAheadAndWithinThirteenHours",
                Tide.nextHigh(NOON).isAfter(NOON) && Duration.between(NOON, Tide.nextHigh(NOON)).toHours() < 13);
        results.put("highWaterIsHigherThanAnHourBefore",
                Tide.height(Tide.nextHigh(NOON)) > Tide.height(Tide.nextHigh(NOON).minusSeconds(3600)));
        StringBuilder xml = new StringBuilder("<testsuite name=\"TideTests\" tests=\"" + results.size() + "\">\n");
        boolean failed = false;
        for (Map.Entry<String, Boolean> result : results.entrySet()) {
            System.out.println((result.getValue() ? "ok    " : "FAIL  ") + result.getKey());
            failed |= !result.getValue();
            xml.append("  <testcase classname=\"TideTests\" name=\"").append(result.getKey()).append("\">")
                    .append(result.getValue() ? "" : "<failure/>").append("</testcase>\n");
        }
        Files.writeString(Path.of(arguments[0], "tide.xml"), xml + "</testsuite>\n");
        System.exit(failed ? 1 : 0);
    }
}
