package dev.paseo.language.file;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.run.RunState;
import dev.paseo.core.run.StageState;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class RunPlanningTest {

    private static final PipelineFile FILE = PipelineFileReader.read("""
            paseo: 1
            component: daylight-api
            versions: "1.{serial}"
            asks:
              loud: {question: How loud?, kind: one-of, of: [quiet, loud], default: quiet}
              how-many: {question: How many?, kind: text, default: "3"}
            stages:
              build: {steps: ['true'], keep: {app: out/app}}
              shout:
                steps: ['true']
                wanted-if: asks.loud == "loud" && branch == "main"
              each:
                steps: ['true']
                each: {board: [sun, rain]}
                wanted-if: each.board == "sun"
            deployment:
              on-each-host: [deploy/install.sh]
              artifacts: [app]
            """).value().orElseThrow();

    private static RunState plan(String branch, Map<String, String> given) {
        return RunPlanning.plan(FILE, new RunPlanning.Start(branch, "c0ffee", "1.1", "push", true, false,
                Answers.of(FILE.asks(), given)));
    }

    /** Those that are passed over, with why. */
    private static Map<String, String> passedOver(RunState run) {
        return run.stages().stream().filter(stage -> stage.notWanted().isPresent()).collect(
                Collectors.toMap(stage -> stage.key().toString(), stage -> stage.notWanted().orElseThrow()));
    }

    @Test
    void whatIsNotWantedIsPassedOverByItsCondition() {
        assertEquals(Map.of("shout", "wanted-if: asks.loud == \"loud\" && branch == \"main\"", "each rain",
                "wanted-if: each.board == \"sun\""), passedOver(plan("main", Map.of())));
        assertEquals(List.of("each rain"), List.copyOf(passedOver(plan("main", Map.of("loud", "loud"))).keySet()));
        assertEquals(2, passedOver(plan("feature/map", Map.of("loud", "loud"))).size());
    }

    @Test
    void eachValueIsAVariantOfItsStage() {
        assertEquals(List.of("", "", "sun", "rain"), plan("main", Map.of()).stages().stream().map(StageState::key)
                .map(key -> key.variant()).toList());
    }

    @Test
    void whatIsNotAnsweredTakesItsDefault() {
        assertEquals(Map.of("loud", "loud", "how-many", "3"), Answers.of(FILE.asks(), Map.of("loud", "loud")));
    }

    @Test
    void anAnswerIsOneThatTheFileTakes() {
        assertEquals(Optional.empty(), Answers.wrong(FILE.asks(), Map.of("loud", "loud")));
        assertEquals(new Answers.Wrong("laud", "The pipeline file does not ask for laud; did you mean loud?"),
                Answers.wrong(FILE.asks(), Map.of("laud", "loud")).orElseThrow());
        assertEquals("loud", Answers.wrong(FILE.asks(), Map.of("loud", "very")).orElseThrow().name());
    }
}
