package dev.paseo.language.file;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.environment.Route;
import dev.paseo.language.Document;
import dev.paseo.language.Reading;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class PipelineFileReaderTest {

    private static final String GOOD = """
            paseo: 1
            component: daylight-api
            summary: Daylight at the huts, over HTTP
            versions: "1.4.{serial}"
            starts:
              - push: [main, "season/*"]
            stages:
              compile:
                steps:
                  - ./build.sh
                  - {name: package, command: ./package.sh, timeout: 5m}
                keep: {app: out/daylight-api.jar}
              unit-tests:
                steps: [./test.sh]
                secrets: [REPORT_TOKEN]
            deployment:
              artifacts: [app]
              bring: ["deploy/**"]
              strategy: together
              on-each-host: [deploy/install.sh]
              secrets: [DATA_KEY]
              checks:
                each-host:
                  - {http: "{host.url}/health", status: 200, contains: "{version}", within: 30s}
              on-failure: undo
              removal: [deploy/remove.sh]
            route:
              - test: automatic
              - {production: on-request, showroom: automatic}
            """;

    @Test
    void aGoodFileSaysWhatItSays() {
        PipelineFile file = PipelineFileReader.read(GOOD).value().orElseThrow();
        assertEquals("daylight-api", file.component());
        assertEquals(List.of("main", "season/*"), file.pushes());
        assertEquals(List.of("compile", "unit-tests"), file.stages().stream().map(PipelineFile.Stage::name).toList());
        assertEquals(new PipelineFile.Step("package", "./package.sh", Duration.ofMinutes(5), 0),
                file.stages().getFirst().steps().getLast());
        assertEquals(Map.of("app", "out/daylight-api.jar"), file.stages().getFirst().keep());
        assertEquals(Duration.ofSeconds(30), file.deployment().orElseThrow().eachHost().getFirst().within());
        assertEquals(List.of(Map.of("test", Route.Mode.AUTOMATIC),
                Map.of("production", Route.Mode.ON_REQUEST, "showroom", Route.Mode.AUTOMATIC)), file.route());
    }

    private static Arguments bad(String from, String to, String... problems) {
        return Arguments.of(from, to, List.of(problems));
    }

    /** One change to the good file, and the problem it makes: line, column, path, words. */
    static Stream<Arguments> changes() {
        return Stream.of(
                bad("paseo: 1", "paseo: 2", "1:8 paseo: should be a whole number from 1 to 1, found “2”"),
                bad("paseo: 1\n", "", "1:1 needs paseo: 1 (the format version)"),
                bad("component: daylight-api", "component: Daylight API",
                        "2:12 component: should be small letters, digits and dashes, at most 63, "
                                + "beginning with a letter or digit, found “Daylight API”"),
                bad("stages:", "stage:", "7:1 stage: is not a key that is known here; did you mean stages?"),
                bad("    keep: {app", "    kepe: {app",
                        "12:5 stages.compile.kepe: is not a key that is known here; did you mean keep?",
                        "17:15 deployment.artifacts[0]: no stage keeps an artifact named app"),
                bad("{serial}", "{serail}", "4:11 versions: has the unknown placeholder {serail}; did you mean serial?",
                        "4:11 versions: gives the same number twice: use {serial}, {commit} or {tag} in it"),
                bad("1.4.{serial}", "1/4.{serial}",
                        "4:11 versions: should give numbers of letters, digits and . + _ -, at most 80 characters"),
                bad("timeout: 5m", "timeout: 5 minutes",
                        "11:57 stages.compile.steps[1].timeout: should be a length of time such as 30s, 5m or 48h, "
                                + "at most 12h, found “5 minutes”"),
                bad("out/daylight-api.jar", "../daylight-api.jar",
                        "12:17 stages.compile.keep.app: should be a path below the workspace, without .. and not "
                                + "beginning with /"),
                bad("out/daylight-api.jar", "/etc/passwd",
                        "12:17 stages.compile.keep.app: should be a path below the workspace, without .. and not "
                                + "beginning with /"),
                bad("steps: [./test.sh]", "steps: []",
                        "14:12 stages.unit-tests.steps: is empty; a stage has at least one step"),
                bad("    steps: [./test.sh]\n", "", "14:5 stages.unit-tests: needs steps: a list of commands"),
                bad("REPORT_TOKEN", "report-token",
                        "15:15 stages.unit-tests.secrets[0]: should be capital letters, digits and _, "
                                + "and not PASEO_ at its beginning, found “report-token”"),
                bad("unit-tests:", "compile:", "13:3 stages.compile: is given twice"),
                bad("artifacts: [app]", "artifacts: [ap]",
                        "17:15 deployment.artifacts[0]: no stage keeps an artifact named ap; did you mean app?"),
                bad("strategy: together", "strategy: sideways",
                        "19:13 deployment.strategy: should be one of blue-green, canary, rolling, together, found "
                                + "“sideways”"),
                bad("{host.url}", "{host.ulr}",
                        "24:16 deployment.checks.each-host[0].http: has the unknown placeholder {host.ulr}; did you "
                                + "mean host.url?"),
                bad("status: 200", "status: 1000",
                        "24:45 deployment.checks.each-host[0].status: should be a whole number from 100 to 599, "
                                + "found “1000”"),
                bad("on-failure: undo", "on-failure: redo", "25:15 deployment.on-failure: should be one of "),
                bad("  on-each-host: [deploy/install.sh]\n", "",
                        "17:3 deployment: needs on-each-host: what brings a version to a host"),
                bad("test: automatic", "test: sometimes",
                        "28:11 route[0].test: should be one of automatic, on-request, found “sometimes”"),
                bad("showroom: automatic", "test: automatic", "29:30 route[1].test: is on the route twice"),
                bad("component: daylight-api", "component: [a", "3:"),
                bad("  compile:", "\tcompile:", "8:1 not valid YAML:"));
    }

    @ParameterizedTest
    @MethodSource("changes")
    void everyProblemIsToldWithItsPlace(String from, String to, List<String> problems) {
        assertTrue(GOOD.contains(from), from);
        Reading<PipelineFile> reading = PipelineFileReader.read(GOOD.replaceFirst(java.util.regex.Pattern.quote(from),
                java.util.regex.Matcher.quoteReplacement(to)));
        List<String> found = reading.problems().stream().map(Object::toString).toList();
        assertTrue(reading.value().isEmpty());
        assertEquals(problems.size(), found.size(), found.toString());
        for (int at = 0; at < problems.size(); at++) {
            assertTrue(found.get(at).startsWith(problems.get(at)),
                    found.get(at) + "\nshould begin with\n" + problems.get(at));
        }
    }

    @Test
    void allProblemsAreToldAtOnce() {
        Reading<PipelineFile> reading = PipelineFileReader.read("paso: 1\nstages:\n  a: {step: [x]}\n");
        assertEquals(5, reading.problems().size(), reading.problems().toString());
    }

    @Test
    void limitsAreToldAndKept() {
        assertTrue(PipelineFileReader.read("x".repeat(Document.MOST_CHARACTERS + 1)).problems().getFirst().message()
                .contains("at most"));
        StringBuilder bomb = new StringBuilder("a: &a [x, x, x, x, x, x, x, x, x]\n");
        for (char name = 'b'; name < 'j'; name++) {
            bomb.append(name).append(": &").append(name).append(" [").append(("*" + (char) (name - 1) + ", ").repeat(9))
                    .append("]\n");
        }
        assertTrue(!PipelineFileReader.read(bomb.toString()).problems().isEmpty());
        assertTrue(!PipelineFileReader.read("[".repeat(100_000)).problems().isEmpty());
        assertTrue(!PipelineFileReader.read("").problems().isEmpty());
    }

    @Test
    void stepsAndTriggersAreNotWithoutNumber() {
        String steps = "paseo: 1\ncomponent: daylight-api\nstages: {a: {steps: [" + "x, ".repeat(101) + "]}}\n";
        assertTrue(PipelineFileReader.read(steps).problems().getFirst().message()
                .contains("has 101 steps; at most 100 are allowed"));
        String starts = "paseo: 1\ncomponent: daylight-api\nstarts: [" + "{push: [main]}, ".repeat(101)
                + "]\nstages: {a: {steps: [x]}}\n";
        assertTrue(PipelineFileReader.read(starts).problems().getFirst().message()
                .contains("has 101 triggers; at most 100 are allowed"));
    }

    @Property(tries = 300)
    void noTextBreaksTheReader(@ForAll @StringLength(max = 400) String text) {
        Reading<PipelineFile> reading = PipelineFileReader.read(text);
        assertTrue(reading.value().isPresent() || !reading.problems().isEmpty());
    }

    @Property(tries = 300)
    void noDamageToAGoodFileBreaksTheReader(@ForAll int at, @ForAll @StringLength(max = 5) String damage) {
        int place = Math.floorMod(at, GOOD.length());
        Reading<PipelineFile> reading = PipelineFileReader
                .read(GOOD.substring(0, place) + damage + GOOD.substring(place));
        assertTrue(reading.value().isPresent() || !reading.problems().isEmpty());
    }

    @Test
    void tooManyStagesAreRefusedAndThousandsInACycleAreToldOnce() {
        StringBuilder many = new StringBuilder("paseo: 1\ncomponent: daylight-api\nstages:\n");
        for (int stage = 0; stage < 2001; stage++) {
            many.append("  s").append(stage).append(": {steps: [a]}\n");
        }
        assertTrue(PipelineFileReader.read(many.toString()).problems().getFirst().message()
                .contains("has 2001 stages; at most 2000"));
        StringBuilder cycle = new StringBuilder("paseo: 1\ncomponent: daylight-api\nstages:\n");
        for (int stage = 0; stage < 2000; stage++) {
            cycle.append("  s").append(stage).append(": {after: [s").append((stage + 1) % 2000)
                    .append("], steps: [a]}\n");
        }
        List<dev.paseo.language.Problem> problems = PipelineFileReader.read(cycle.toString()).problems();
        assertEquals(1, problems.size());
        assertTrue(problems.getFirst().message().startsWith("waits for itself: "), problems::toString);
    }

    @Test
    void aBombOfAliasesIsRefused() {
        StringBuilder bomb = new StringBuilder("paseo: 1\ncomponent: daylight-api\na0: &a0 [x, x]\n");
        for (int level = 1; level < 40; level++) {
            bomb.append("a").append(level).append(": &a").append(level).append(" [*a").append(level - 1).append(", *a")
                    .append(level - 1).append("]\n");
        }
        assertTrue(!PipelineFileReader.read(bomb.toString()).problems().isEmpty());
    }
}
