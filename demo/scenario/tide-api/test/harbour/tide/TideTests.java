package harbour.tide;

import harbour.tide.model.Tide;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;

/** Tests without a framework; they write JUnit XML into the folder given. The zone is this machine's. */
public final class TideTests {

    private static final Instant NOON = Instant.parse("2026-03-20T12:00:00Z");
    private static final String TODAY = Predictions.today(NOON, ZoneId.systemDefault(), "1.0");

    private TideTests() {}

    private static Map<String, BooleanSupplier> tests() {
        Map<String, BooleanSupplier> tests = new LinkedHashMap<>();
        tests.put("the height is told in whole millimetres", () -> TODAY.contains("\"height_mm\":" + Predictions.rounded(Tide.height(NOON)) + ","));
        tests.put("high water is told in the harbour's zone",
                () -> TODAY.contains("\"next_high\":\"" + Tide.nextHigh(NOON).atZone(ZoneId.systemDefault()).toOffsetDateTime()));
        tests.put("high water is higher than an hour before", () -> Tide.height(Tide.nextHigh(NOON)) > Tide.height(Tide.nextHigh(NOON).minusSeconds(3600)));
        tests.put("the answer says who made it", () -> TODAY.endsWith("\"by\":\"tide-api 1.0\"}"));
        return tests;
    }

    public static void main(String[] arguments) throws IOException {
        boolean verbose = "true".equals(System.getenv("PASEO_ASK_VERBOSE"));
        StringBuilder xml = new StringBuilder("<testsuite name=\"TideTests\">\n");
        int failed = 0;
        for (Map.Entry<String, BooleanSupplier> test : tests().entrySet()) {
            long began = System.nanoTime();
            boolean passed = test.getValue().getAsBoolean();
            failed += passed ? 0 : 1;
            System.out.println((passed ? "\u001b[32mok\u001b[0m    " : "\u001b[31mFAIL\u001b[0m  ") + test.getKey());
            xml.append("  <testcase classname=\"TideTests\" name=\"").append(test.getKey()).append("\" time=\"")
                    .append((System.nanoTime() - began) / 1e9).append("\">")
                    .append(passed ? "" : "<failure message=\"does not hold\">" + TODAY.replace("<", "&lt;") + "</failure>").append("</testcase>\n");
        }
        for (int minute = 0; verbose && minute < 1440; minute += 10) {
            Instant at = NOON.plusSeconds(60L * minute);
            System.out.println("  " + at + "  " + Predictions.rounded(Tide.height(at)) + " mm");
        }
        Files.writeString(Path.of(arguments[0], "tide.xml"), xml + "</testsuite>\n");
        System.exit(failed > 0 ? 1 : 0);
    }
}
