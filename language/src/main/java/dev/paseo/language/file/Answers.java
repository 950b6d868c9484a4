package dev.paseo.language.file;

import dev.paseo.language.NearestName;
import dev.paseo.language.file.PipelineFile.Ask;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Answers to what a pipeline file asks. */
public final class Answers {

    private Answers() {}

    /** An answer that is none: to what the file does not ask, or one that it does not take. */
    public record Wrong(String name, String reason) {}

    /** The first that is wrong. */
    public static Optional<Wrong> wrong(Map<String, Ask> asks, Map<String, String> given) {
        return given.entrySet().stream().flatMap(answer -> {
            String name = answer.getKey();
            return (asks.containsKey(name)
                    ? asks.get(name).reasonAgainst(answer.getValue()).map(why -> name + " " + why)
                    : Optional.of("The pipeline file does not ask for " + name + NearestName.hint(name, asks.keySet())))
                    .map(reason -> new Wrong(name, reason)).stream();
        }).findFirst();
    }

    /** The answers, and the default for what was not answered. */
    public static Map<String, String> of(Map<String, Ask> asks, Map<String, String> given) {
        Map<String, String> answers = new LinkedHashMap<>();
        asks.forEach((name, ask) -> answers.put(name, given.getOrDefault(name, ask.standard())));
        return answers;
    }
}
