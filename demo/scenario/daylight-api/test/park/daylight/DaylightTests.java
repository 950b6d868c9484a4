package park.daylight;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import park.sun.Sun;

/** Tests without a framework; they write JUnit XML into the folder given. The zone is this machine's. */
public final class DaylightTests {

    private static final LocalDate SPRING = LocalDate.of(2026, 3, 20);
    private static final ZoneId ZONE = ZoneId.systemDefault();
    private static final String TODAY = Times.of(SPRING, ZONE, "1.0");

    private DaylightTests() {}

    private static Map<String, BooleanSupplier> tests() {
        Map<String, BooleanSupplier> tests = new LinkedHashMap<>();
        tests.put("every hut has its times", () -> Times.HUTS.stream().allMatch(hut -> TODAY.contains("{\"hut\":\"" + hut.name() + "\",\"sunrise\":")));
        tests.put("sunset is told in the reader's zone", () -> TODAY.contains("\"sunset\":\"" + Times.clock(day(Times.HUTS.getFirst()).sunset(), ZONE) + "\""));
        tests.put("who turns back in time is down at sunset", () -> Times.HUTS.stream().allMatch(hut ->
                Duration.between(Times.turnBack(hut, day(hut)).plus(hut.wayBack()), day(hut).sunset()).toSeconds() >= -30));
        tests.put("the answer says who made it", () -> TODAY.endsWith("\"by\":\"daylight-api 1.0\"}"));
        return tests;
    }

    private static Sun.Day day(Times.Hut hut) {
        return Sun.day(hut.place(), SPRING).orElseThrow();
    }

    public static void main(String[] arguments) throws IOException {
        boolean verbose = "true".equals(System.getenv("PASEO_ASK_VERBOSE"));
        StringBuilder xml = new StringBuilder("<testsuite name=\"DaylightTests\">\n");
        int failed = 0;
        for (Map.Entry<String, BooleanSupplier> test : tests().entrySet()) {
            long began = System.nanoTime();
            boolean passed = test.getValue().getAsBoolean();
            failed += passed ? 0 : 1;
            System.out.println((passed ? "\u001b[32mok\u001b[0m    " : "\u001b[31mFAIL\u001b[0m  ") + test.getKey());
            xml.append("  <testcase classname=\"DaylightTests\" name=\"").append(test.getKey()).append("\" time=\"")
                    .append((System.nanoTime() - began) / 1e9).append("\">")
                    .append(passed ? "" : "<failure message=\"does not hold\">" + TODAY.replace("<", "&lt;") + "</failure>").append("</testcase>\n");
        }
        for (int day = 0; verbose && day < 365; day += 5) {
            System.out.println("  " + Times.of(SPRING.plusDays(day), ZONE, "1.0"));
        }
        Files.writeString(Path.of(arguments[0], "daylight.xml"), xml + "</testsuite>\n");
        System.exit(failed > 0 ? 1 : 0);
    }
}
