package dev.paseo.language;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.language.environment.EnvironmentsFileReader;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files with words of the release before are read as they were meant, and say the words of now. */
class FormerWordsTest {

    private static List<String> told(List<Problem> problems) {
        return problems.stream().map(Problem::toString).toList();
    }

    @Test
    void anEnvironmentsFileOfTheReleaseBeforeIsReadWithWarnings() {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read("""
                environments:
                  test:
                    exit: {checklist: {for: testers, items: [Old links still work]}}
                    entry:
                      soak: 2h
                    components:
                      daylight-api:
                        hosts: {test-1: {}}
                        entry: {soak: 4h}
                    rollback: {soak: 5m}
                """);
        assertEquals(List.of(), reading.problems());
        assertEquals(
                List.of("3:5 environments.test.exit: is now written to-go-on",
                        "4:5 environments.test.entry: is now written to-enter",
                        "5:7 environments.test.entry.soak: is now written live-for",
                        "9:9 environments.test.components.daylight-api.entry: is now written to-enter",
                        "9:17 environments.test.components.daylight-api.entry.soak: is now written live-for",
                        "10:16 environments.test.rollback.soak: is now written live-for"),
                told(reading.warnings()));
        var rules = reading.value().orElseThrow().environments().getFirst().rules();
        assertEquals(List.of(new Criterion.LiveFor(Duration.ofHours(2)), new Criterion.LiveFor(Duration.ofHours(4))),
                rules.toEnter(Kind.REDEPLOY, "daylight-api"));
        assertEquals(1, rules.toGoOn("daylight-api").size());
    }

    @Test
    void aPipelineFileOfTheReleaseBeforeIsReadWithWarnings() {
        Reading<PipelineFile> reading = PipelineFileReader.read("""
                paseo: 1
                component: daylight-api
                asks:
                  where: {question: Where?, kind: choice, choices: [north, south], default: north}
                """);
        assertEquals(List.of(), reading.problems());
        assertEquals(List.of("4:35 asks.where.kind: \"choice\" is now written one-of",
                "4:43 asks.where.choices: is now written of"), told(reading.warnings()));
        assertEquals(new PipelineFile.Ask("Where?", PipelineFile.Ask.Kind.ONE_OF, "north", List.of("north", "south")),
                reading.value().orElseThrow().asks().get("where"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "to-enter: {}, entry: {}                | 3:24 environments.test.entry: is the former word for "
                    + "to-enter: write only one of them",
            "exit: {}, to-go-on: {}                 | 3:20 environments.test.to-go-on: is also given by its former "
                    + "word: write only to-go-on",
            "to-enter: {soak: 1h, live-for: 2h}     | 3:31 environments.test.to-enter.live-for: is also given by "
                    + "its former word: write only live-for",
            "soak: 2h                               | 3:10 environments.test.soak: is not a key that is known here",
            "to-enter: {approvals: {soak: 2h}}      | 3:33 environments.test.to-enter.approvals.soak: is not a key "
                    + "that is known here",
    })
    void aFormerWordBesideItsPresentOneOrWhereItNeverStoodIsAProblem(String body, String expected) {
        List<String> problems = told(
                EnvironmentsFileReader.read("environments:\n  test:\n    {    " + body + "}\n").problems());
        assertTrue(problems.stream().anyMatch(problem -> problem.startsWith(expected)), problems.toString());
    }

    @Test
    void answersWithoutOneAreAProblem() {
        assertEquals(List.of("4:47 asks.where.of: should list at least one answer"), told(PipelineFileReader.read(
                "paseo: 1\ncomponent: daylight-api\nasks:\n  where: {question: Where?, kind: one-of, of: [], "
                        + "default: north}\n")
                .problems()));
    }
}
