package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.lang.reflect.Field;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What the documentation says of limits is what the code enforces, and the tests that it names exist. */
class LimitsTest {

    private static final Pattern ROW = Pattern.compile(
            "\\| (?<what>[^|]+) \\| (?<limit>\\d+) \\| [^|]+ \\| `(?<class>[\\w.]+)#(?<field>\\w+)` \\|(?: "
                    + "`(?<test>\\w+)\\.(?<method>\\w+)`)? \\|");

    record Limit(String what, long value, String type, String field, String test, String method) {}

    static Stream<Limit> limits() throws IOException {
        return Files.readAllLines(TestDatabase.ROOT.resolve("docs/limits.md")).stream().map(ROW::matcher)
                .filter(Matcher::matches)
                .map(row -> new Limit(row.group("what"), Long.parseLong(row.group("limit")), row.group("class"),
                        row.group("field"),
                        row.group("test") == null ? "" : row.group("test"),
                        row.group("method") == null ? "" : row.group("method")));
    }

    @ParameterizedTest
    @MethodSource("limits")
    void aLimitIsReadFromWhereItIsEnforced(Limit limit) throws Exception {
        Field field = Class.forName("dev.paseo." + limit.type()).getDeclaredField(limit.field());
        field.setAccessible(true);
        assertEquals(limit.value(), ((Number) field.get(null)).longValue(), limit.what());
        assertTrue(named(limit.test()).contains("void " + limit.method() + "("),
                () -> limit.test() + " has no test " + limit.method());
    }

    /** What these pages say is kept true by the tests that they name. */
    @ParameterizedTest
    @ValueSource(strings = {"faults", "architecture"})
    void everyTestThatAPageNamesExists(String page) throws IOException {
        Matcher named = Pattern.compile("`(\\w+Test)(?:\\.(\\w+)(…?))?`")
                .matcher(Files.readString(TestDatabase.ROOT.resolve("docs/" + page + ".md")));
        int count = 0;
        for (; named.find(); count++) {
            String method = named.group(2);
            assertTrue(
                    method == null
                            || named(named.group(1)).contains("void " + method + (named.group(3).isEmpty() ? "(" : "")),
                    () -> "there is no " + named.group());
        }
        assertTrue(count > 20, "only " + count);
    }

    /** The text of the tests of this name, in whichever modules they are. */
    private static String named(String test) throws IOException {
        StringBuilder found = new StringBuilder();
        for (String module : List.of("core", "language", "api", "agent", "service", "cli", "e2e")) {
            try (Stream<Path> files = Files.walk(TestDatabase.ROOT.resolve(module + "/src/test/java"))) {
                for (Path file : files.filter(file -> file.getFileName().toString().equals(test + ".java")).toList()) {
                    found.append(Files.readString(file));
                }
            }
        }
        assertTrue(!found.isEmpty(), () -> "there is no test " + test);
        return found.toString();
    }

    @Test
    void thereAreAsManyAsAreWritten() throws IOException {
        long rows = Files.readAllLines(TestDatabase.ROOT.resolve("docs/limits.md")).stream()
                .filter(line -> line.contains("#") && line.startsWith("| ")).count();
        assertEquals(rows, limits().count(), "a row that does not read as one");
        assertTrue(rows > 30);
    }
}
