package dev.paseo.service.run;

import dev.paseo.language.NearestName;
import dev.paseo.language.file.PipelineFile.Ask;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashMap;
import java.util.Map;

/** Answers to what a pipeline file asks. */
final class Answers {

    private Answers() {}

    /** The answers, and the default for what was not answered; refused where one is none. */
    static Map<String, String> of(Map<String, Ask> asks, Map<String, String> given) {
        given.forEach((name, answer) -> {
            if (!asks.containsKey(name)) {
                throw Refusal.invalid("/answers/" + name,
                        "The pipeline file does not ask for " + name + NearestName.hint(name, asks.keySet()));
            }
            asks.get(name).reasonAgainst(answer).ifPresent(reason -> {
                throw Refusal.invalid("/answers/" + name, name + " " + reason);
            });
        });
        Map<String, String> answers = new LinkedHashMap<>();
        asks.forEach((name, ask) -> answers.put(name, given.getOrDefault(name, ask.standard())));
        return answers;
    }
}
