package harbour.tide.model;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;

/** Tests without a framework; they write JUnit XML into the folder given. */
public final class TideTests {

    private TideTests() {}

    public static void main(String[] arguments) throws IOException {
        Map<String, BooleanSupplier> tests = new LinkedHashMap<>();
        Instant start = Instant.parse("2026-01-01T00:00:00Z");
        for (int day = 0; day < 28; day++) {
            Instant noon = start.plus(Duration.ofDays(day * 13L + 1)).plusSeconds(43_200);
            String name = noon.toString().substring(0, 10);
            tests.put("height stays within the sum of the amplitudes, " + name, () -> Math.abs(Tide.height(noon) - Tide.MEAN) <= 1970);
            tests.put("high water comes within fourteen hours, " + name,
                    () -> Duration.between(noon, Tide.nextHigh(noon)).toHours() < 14);
        }
        StringBuilder xml = new StringBuilder("<testsuite name=\"TideTests\" tests=\"" + tests.size() + "\">\n");
        int failed = 0;
        for (Map.Entry<String, BooleanSupplier> test : tests.entrySet()) {
            long began = System.nanoTime();
            boolean passed = test.getValue().getAsBoolean();
            failed += passed ? 0 : 1;
            xml.append("  <testcase classname=\"TideTests\" name=\"").append(test.getKey()).append("\" time=\"")
                    .append((System.nanoTime() - began) / 1e9).append("\">").append(passed ? "" : "<failure message=\"does not hold\"/>").append("</testcase>\n");
        }
        Files.writeString(Path.of(arguments[0], "tide.xml"), xml + "</testsuite>\n");
        System.out.println(tests.size() - failed + " of " + tests.size() + " tests passed");
        System.exit(failed > 0 ? 1 : 0);
    }
}
