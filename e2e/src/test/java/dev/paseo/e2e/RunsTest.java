package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What runs do: order, variants, files, attempts, turns, agents. Each test brings in a component of its own. */
class RunsTest {

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder", "jdk25");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static String file(String component, String stages) {
        return "paseo: 1\ncomponent: " + component
                + "\nversions: \"1.{serial}\"\nstarts: [{push: [main, \"feature/*\"]}]\nstages:\n" + stages.indent(2);
    }

    private static String file(String component, String top, String stages) {
        return file(component, stages).replace("stages:\n", top + "\nstages:\n");
    }

    private static Repository bring(String component, String file) throws Exception {
        Repository repository = park.bring(component, Map.of());
        repository.push("developer", "main", Map.of("paseo.yaml", file));
        return repository;
    }

    /** All attempts of all stages, as words. */
    private static String stages(JsonNode run) {
        return StreamSupport.stream(run.path("stages").spliterator(), false)
                .map(stage -> (stage.path("name").asString() + " " + stage.path("variant").asString("")).strip()
                        + (stage.path("attempt").asInt() > 1 ? "/" + stage.path("attempt").asInt() : "") + " "
                        + stage.path("status").asString())
                .collect(Collectors.joining(", "));
    }

    private static String status(JsonNode run) {
        return run.path("run").path("status").asString();
    }

    @Test
    void variantsRunSideBySideAndWhatTheyLeaveReachesTheStageAfterThem() throws Exception {
        bring("fan", file("fan", """
                make: {steps: ["mkdir out && echo light > out/word"], files: [out/**]}
                each-zone:
                  each: {zone: [UTC, Pacific/Auckland]}
                  steps: ['mkdir -p zones; echo "$(cat out/word) in $PASEO_EACH_ZONE" > "zones/$(echo \
                $PASEO_EACH_ZONE | tr / -)"']
                  files: [zones/*]
                join: {steps: ["cat zones/* | sort"], keep: {words: out/word}}
                """));
        JsonNode run = park.runEnds("fan", 1);
        assertEquals("make passed, each-zone UTC passed, each-zone Pacific/Auckland passed, join passed", stages(run));
        String log = park.log("fan", 1, "join");
        assertTrue(log.contains("light in Pacific/Auckland\nlight in UTC\n"), log);
        assertEquals(3, run.path("left").size());
        assertTrue(log.contains("files of make\nfiles of each-zone UTC\nfiles of each-zone Pacific/Auckland\n"), log);
    }

    @Test
    void twoStagesThatLeaveOneFileAreTold() throws Exception {
        bring("twice", file("twice", """
                one: {steps: ["echo 1 > word"], files: [word]}
                two: {after: [one], steps: ["echo 2 > word"], files: [word]}
                """));
        JsonNode run = park.runEnds("twice", 1);
        assertEquals("one passed, two failed", stages(run));
        assertTrue(run.path("run").path("reason").asString().contains("files: word is left by one as well"),
                run.path("run")::toString);
    }

    @Test
    void aFailureSkipsWhatNeedsItRunsWhatRunsRegardlessAndResumesFromThere() throws Exception {
        Path mended = park.folder.resolve("mended");
        bring("fall", file("fall", """
                compile: {steps: ["echo once >> %1$s-count"]}
                unit-tests: {steps: ["test -e %1$s"]}
                pack: {steps: ["true"], keep: {app: paseo.yaml}}
                tidy: {after-any: [pack], steps: ["true"]}
                ring: {if-failed: [unit-tests], steps: ["true"]}
                """.formatted(mended)));
        JsonNode failed = park.runEnds("fall", 1);
        assertEquals("compile passed, unit-tests failed, pack skipped, tidy passed, ring passed", stages(failed));
        assertEquals("unattainable: unit-tests failed", failed.path("stages").path(2).path("reason").asString());
        Files.writeString(mended, "");
        park.as("developer").post("/api/v1/runs/fall/1/resumption", Map.of()).good();
        Await.until("fall#1 passes", () -> status(park.run("fall", 1)).equals("passed"));
        assertEquals(
                "compile passed, unit-tests failed, unit-tests/2 passed, pack passed, tidy passed, tidy/2 passed, "
                        + "ring passed, ring/2 skipped",
                stages(park.run("fall", 1)));
        assertEquals("once\n", Files.readString(Path.of(mended + "-count")));
        assertEquals(409, park.as("developer").post("/api/v1/runs/fall/1/resumption", Map.of()).status());
        assertEquals(200, park.as("developer").get("/api/v1/versions/fall/1.1").status());
    }

    @Test
    void aStageThatMayFailWarnsAndOneThatIsNotWantedIsSkipped() throws Exception {
        bring("lenient", file("lenient", "asks:\n  loud: {question: Loud?, kind: flag, default: false}", """
                lint: {steps: ["false"], may-fail: true}
                shout: {wanted-if: "asks.loud == 'true'", steps: ['echo "loud is $PASEO_ASK_LOUD"']}
                done: {steps: ["true"]}
                """));
        JsonNode quiet = park.runEnds("lenient", 1);
        assertEquals("warned", status(quiet));
        assertEquals("lint warned, shout skipped, done passed", stages(quiet));
        assertEquals("not wanted: wanted-if: asks.loud == 'true'",
                quiet.path("stages").path(1).path("reason").asString());
        park.as("developer").post("/api/v1/runs", Map.of("component", "lenient", "answers", Map.of("loud", "true")))
                .good();
        assertEquals("lint warned, shout passed, done passed", stages(park.runEnds("lenient", 2)));
        assertTrue(park.log("lenient", 2, "shout").contains("loud is true"));
        Client.Answer wrong = park.as("developer").post("/api/v1/runs",
                Map.of("component", "lenient", "answers", Map.of("laud", "true")));
        assertEquals("The pipeline file does not ask for laud; did you mean loud?", wrong.detail());
        assertEquals("loud should be true or false; got “very”", park.as("developer").post("/api/v1/runs",
                Map.of("component", "lenient", "answers", Map.of("loud", "very"))).detail());
        park.as("developer").post("/api/v1/runs/lenient/2/repetition", Map.of()).good();
        assertEquals("lint warned, shout passed, done passed", stages(park.runEnds("lenient", 3)));
    }

    @Test
    void aStepIsTriedAgainAndAStageHasALimit() throws Exception {
        Path count = park.folder.resolve("tries");
        bring("retry", file("retry", """
                flaky: {steps: [{command: "echo x >> %s; test $(wc -l < %s) -ge 2", retries: 3}]}
                slow: {steps: ["sleep 30"], timeout: 1s}
                """.formatted(count, count)));
        JsonNode run = park.runEnds("retry", 1);
        assertEquals("flaky passed, slow failed", stages(run));
        JsonNode tries = run.path("stages").path(0).path("steps");
        assertEquals(List.of("1 failed", "2 passed"), StreamSupport.stream(tries.spliterator(), false)
                .map(step -> step.path("tried").asInt() + " " + step.path("status").asString()).toList());
        assertTrue(run.path("run").path("reason").asString().contains("the stage took longer than 1 s"),
                run.path("run")::toString);
    }

    @Test
    void anArtifactOfAnotherComponentIsTakenOnlyWhereItIsOpened() throws Exception {
        bring("model",
                file("model", "make: {steps: ['echo model $PASEO_VERSION > model.txt'], keep: {model: model.txt}}"));
        park.runEnds("model", 1);
        String stages = "use: {take: [{from: model, into: lib}], steps: [cat lib/model.txt]}";
        Repository closed = park.bring("closed", Map.of());
        String said = closed.push("developer", "main", Map.of("paseo.yaml", file("closed", stages)));
        assertTrue(said.contains("closed takes from model, which was not opened to it"), said);
        Repository user = park.bring("user", Map.of("sources", List.of("model")));
        user.push("developer", "main", Map.of("paseo.yaml", file("user", stages)));
        JsonNode run = park.runEnds("user", 1);
        assertEquals("passed", status(run));
        assertEquals("1.1", run.path("stages").path(0).path("takes").path(0).path("version").asString());
        assertTrue(park.log("user", 1, "use").contains("model 1.1"));
        String untrusted = user.push("developer", "feature/times", Map.of("README", "x"));
        assertTrue(
                untrusted.contains(
                        "feature/times is not a trusted branch of user, and model is opened to trusted branches alone"),
                untrusted);
        park.as("developer").post("/api/v1/runs", Map.of("component", "model")).good();
        park.runEnds("model", 2);
        park.as("developer").post("/api/v1/runs", Map.of("component", "user")).good();
        assertTrue(
                park.log("user", park.runEnds("user", 2).path("run").path("number").asLong(), "use")
                        .contains("model 1.1"),
                "without an upstream start the line stays with what it used last");
    }

    @Test
    void foldersAreReusedAndAnUntrustedBranchDoesNotWriteForOthers() throws Exception {
        Repository repository = bring("cache", file("cache", """
                build: {reuse: {key: [lock], folders: [store]}, steps: ["mkdir -p store; cat store/* || true; echo \
                \\"by $PASEO_RUN\\" > store/$(echo $PASEO_RUN | tr '#' -)"]}
                """));
        park.runEnds("cache", 1);
        assertTrue(park.log("cache", 1, "build").contains("reuse: store begins empty"), park.log("cache", 1, "build"));
        repository.push("developer", "feature/own", Map.of("README", "x"));
        String second = park.log("cache", park.runEnds("cache", 2).path("run").path("number").asLong(), "build");
        assertTrue(second.contains("reuse: store as kept by cache#1") && second.contains("by cache#1"), second);
        repository.push("developer", "feature/own", Map.of("lock", "changed"));
        assertTrue(park.log("cache", park.runEnds("cache", 3).path("run").path("number").asLong(), "build")
                .contains("in an older state, kept by cache#1"));
        repository.push("developer", "main", Map.of("lock", "changed"));
        String main = park.log("cache", park.runEnds("cache", 4).path("run").path("number").asLong(), "build");
        assertTrue(main.contains("in an older state, kept by cache#1"), main);
        assertTrue(!main.contains("by cache#3"), "what an untrusted branch kept never reaches a trusted one");
        assertTrue(park.run("cache", 4).path("stages").path(0).path("reused").asString()
                .startsWith("an older state, kept by cache#1, "));
    }

    private static Map<String, String> reports(String junit) {
        Map<String, String> files = new LinkedHashMap<>();
        files.put("report/tests.xml", junit);
        files.put("report/coverage.xml", """
                <?xml version="1.0"?><!DOCTYPE report PUBLIC "-//JACOCO//DTD Report 1.1//EN" "report.dtd">
                <report name="light"><package name="park/daylight"><counter type="LINE" missed="20" \
                covered="60"/><counter type="BRANCH" missed="1" covered="3"/></package></report>
                """);
        files.put("report/findings.sarif", """
                {"version": "2.1.0", "runs": [{"tool": {"driver": {"name": "lint"}}, "results": [{"ruleId": "unused", \
                "level": "warning",
                  "message": {"text": "unused variable"}, "locations": [{"physicalLocation": {"artifactLocation": \
                {"uri": "Sun.java"}, "region": {"startLine": 7}}}]}]}]}
                """);
        return files;
    }

    private static final String REPORTING = "tests: {steps: ['true'], reports: {tests: report/tests.xml, coverage: "
            + "report/coverage.xml, findings: report/*.sarif}, "
            + "warn-if: 'tests.skipped > 0 || coverage.lines < 0.5'}";

    private static String junit(String... cases) {
        return "<testsuite name='DaylightTests'>" + String.join("", cases) + "</testsuite>";
    }

    @Test
    void reportsBecomeEvidenceBesideThoseBefore() throws Exception {
        Repository repository = park.bring("evident", Map.of());
        Map<String, String> files = reports(junit("<testcase classname='DaylightTests' name='high' time='0.5'/>",
                "<testcase classname='DaylightTests' name='low' time='1.5'><failure message='off by one'>expected "
                        + "3, got 4</failure></testcase>",
                "<testcase classname='DaylightTests' name='neap'><skipped/></testcase>"));
        files.put("paseo.yaml", file("evident", REPORTING));
        repository.push("developer", "main", files);
        JsonNode first = park.runEnds("evident", 1);
        assertEquals("warned", status(first), () -> first.path("run").toString());
        assertEquals(
                "its steps ended well, but its report tells of 1 failed test; warn-if: tests.skipped > 0 || "
                        + "coverage.lines < 0.5",
                first.path("stages").path(0).path("reason").asString());
        JsonNode evidence = park.as("developer").get("/api/v1/runs/evident/1/evidence").good();
        JsonNode tests = evidence.path("tests").path(0).path("tests");
        assertEquals("3 1 1 1", tests.path("total").asInt() + " " + tests.path("passed").asInt() + " "
                + tests.path("failed").asInt() + " " + tests.path("skipped").asInt());
        assertEquals("expected 3, got 4", tests.path("failures").path(0).path("output").asString());
        assertEquals("DaylightTests.low", tests.path("slowest").path(0).path("name").asString());
        assertEquals(0.75, evidence.path("coverage").path(0).path("lines").asDouble());
        assertEquals(7,
                evidence.path("findings").path(0).path("findings").path("results").path(0).path("line").asInt());
        repository.push("developer", "main",
                Map.of("report/tests.xml",
                        junit("<testcase classname='DaylightTests' name='high'><error message='boom'/></testcase>",
                                "<testcase classname='DaylightTests' name='low'/>")));
        assertEquals("warned", status(park.runEnds("evident", 2)));
        JsonNode second = park.as("developer").get("/api/v1/runs/evident/2/evidence").good();
        assertEquals("[\"DaylightTests.high\"]", second.path("tests").path(0).path("newlyFailing").toString());
        assertEquals("[\"DaylightTests.low\"]", second.path("tests").path(0).path("tests").path("mended").toString());
        assertEquals(1, second.path("findings").path(0).path("still").asInt());
        assertEquals(2, second.path("trend").size());
    }

    @Test
    void aReportThatCannotBeReadFailsItsStageAndSaysWhere() throws Exception {
        Map<String, String> bad = new LinkedHashMap<>();
        bad.put("report/tests.xml", "<testsuite>\n<testcase name='a'>");
        bad.put("report/coverage.xml", "<html/>");
        bad.put("report/findings.sarif", "{\"version\": \"2.1.0\", \"runs\": [{\"results\": [");
        Map<String, String> said = Map.of("tests", "reports tests: report/tests.xml:2:", "coverage",
                "reports coverage: report/coverage.xml: is <html>",
                "findings", "reports findings: report/findings.sarif");
        int number = 0;
        Repository repository = park.bring("broken", Map.of());
        for (String kind : List.of("tests", "coverage", "findings")) {
            Map<String, String> files = new LinkedHashMap<>(bad);
            files.put("paseo.yaml",
                    file("broken", "tests: {steps: ['true'], reports: {" + kind + ": report/" + kind + ".*}}"));
            repository.push("developer", "main", files);
            JsonNode run = park.runEnds("broken", ++number);
            assertEquals("failed", status(run));
            assertTrue(run.path("run").path("reason").asString().contains(said.get(kind)),
                    run.path("run").path("reason")::asString);
        }
    }

    @Test
    void entitiesAreNotReadAndNothingIsFetched() throws Exception {
        Repository repository = park.bring("hostile", Map.of());
        Map<String, String> files = new LinkedHashMap<>();
        files.put("report/tests.xml",
                "<!DOCTYPE t [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><testsuite><testcase "
                        + "name='x'><failure>&a;</failure></testcase></testsuite>");
        files.put("paseo.yaml", file("hostile", "tests: {steps: ['true'], reports: {tests: report/tests.xml}}"));
        repository.push("developer", "main", files);
        JsonNode run = park.runEnds("hostile", 1);
        assertEquals("failed", status(run));
        assertTrue(run.path("run").path("reason").asString().contains("has a document type"),
                run.path("run").path("reason")::asString);
    }

    @Test
    void aNewerRunWaitsAndTheOneBetweenGivesWay() throws Exception {
        Path gate = park.folder.resolve("turn");
        Repository repository = bring("turns",
                file("turns", "hold: {steps: ['while ! test -e " + gate + "; do sleep 0.05; done']}"));
        Await.until("turns#1 runs", () -> stages(park.run("turns", 1)).equals("hold running"));
        repository.push("developer", "main", Map.of("README", "2"));
        Await.until("turns#2 waits for turns#1", () -> park.run("turns", 2).path("waitsForRun").asLong() == 1);
        repository.push("developer", "main", Map.of("README", "3"));
        assertEquals("cancelled", status(park.runEnds("turns", 2)));
        assertEquals("gave way to turns#3", park.run("turns", 2).path("run").path("reason").asString());
        Files.writeString(gate, "");
        assertEquals("passed", status(park.runEnds("turns", 3)));
        assertEquals("passed", status(park.runEnds("turns", 1)));
    }

    @Test
    void aNewerRunTakesOverWhereItsFileSaysSo() throws Exception {
        Repository repository = bring("over",
                file("over", "newer-start: takes-over", "hold: {steps: ['test -e README || sleep 60']}"));
        Await.until("over#1 runs", () -> stages(park.run("over", 1)).equals("hold running"));
        repository.push("developer", "main", Map.of("README", "2"));
        assertEquals("passed", status(park.runEnds("over", 2)));
        assertEquals("gave way to over#2", park.run("over", 1).path("run").path("reason").asString());
    }

    @Test
    void aStageWaitsForAnAgentThatFitsAndSaysSo() throws Exception {
        bring("picky", file("picky", "build: {wants: [sparc], steps: ['true']}"));
        Await.until("it says what it waits for",
                () -> park.run("picky", 1).path("stages").path(0).path("waitsFor").asString("")
                        .equals("waits for an agent that offers sparc: there is none"));
        park.startAgent("old-iron", "sparc");
        assertEquals("passed", status(park.runEnds("picky", 1)));
        park.as("admin").put("/api/v1/agents/old-iron/drain", Map.of()).good();
        park.as("developer").post("/api/v1/runs", Map.of("component", "picky")).good();
        Await.until("it says that the agent is drained", () -> park.run("picky", 2).path("stages").path(0)
                .path("waitsFor").asString("").endsWith("old-iron is drained"));
        park.as("admin").delete("/api/v1/agents/old-iron/drain").good();
        assertEquals("passed", status(park.runEnds("picky", 2)));
    }

    @Test
    void aFirstCancelLetsTheTidyingRunAndASecondDoesNot() throws Exception {
        bring("stop", file("stop", """
                hold: {steps: ["sleep 60"]}
                tidy: {after-any: [hold], steps: ["true"]}
                """));
        Await.until("it runs", () -> stages(park.run("stop", 1)).startsWith("hold running"));
        park.as("developer").post("/api/v1/runs/stop/1/cancellation", Map.of()).good();
        assertEquals("cancelled", status(park.runEnds("stop", 1)));
        assertEquals("hold cancelled, tidy passed", stages(park.run("stop", 1)));
    }

    @Test
    void aVersionMayBeNamedAfterTheNearestTag() throws Exception {
        Repository repository = park.bring("tagged", Map.of());
        String text = file("tagged", "make: {steps: ['true']}").replace("\"1.{serial}\"", "\"{tag}.{serial}\"");
        String said = repository.push("developer", "main", Map.of("paseo.yaml", text));
        assertTrue(said.contains("names {tag}, but there is no tag at or before this commit"), said);
        repository.tag("3.2");
        repository.push("developer", "main", Map.of("README", "after the tag"));
        assertEquals("3.2.1", park.runEnds("tagged", 1).path("run").path("version").asString());
    }
}
