package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Ask;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads what a person who starts a run is asked. */
final class AsksReader {

    private static final int MOST_ASKS = 50;
    private static final Map<String, Ask.Kind> KINDS =
            Map.of("flag", Ask.Kind.FLAG, "text", Ask.Kind.TEXT, "number", Ask.Kind.NUMBER, "choice", Ask.Kind.CHOICE);

    private AsksReader() {}

    static Map<String, Ask> read(Value value) {
        Map<String, Ask> asks = new LinkedHashMap<>();
        Map<String, Value> entries = value.entries();
        if (entries.size() > MOST_ASKS) {
            value.problem("asks " + entries.size() + " questions; at most " + MOST_ASKS + " are allowed");
        }
        entries.forEach((name, body) -> {
            if (!Names.NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            asks.put(name, ask(body));
        });
        return asks;
    }

    private static Ask ask(Value body) {
        Map<String, Value> entries = body.entries(List.of("question", "kind", "default", "choices"));
        String question = require(body, entries, "question", "question: what a person is asked").flatMap(Value::text).orElse("");
        Ask.Kind kind = require(body, entries, "kind", "kind: flag, text, number or choice").flatMap(value -> value.choice(KINDS)).orElse(Ask.Kind.TEXT);
        List<String> choices = optional(entries, "choices").map(Value::texts).orElse(List.of());
        if (kind == Ask.Kind.CHOICE && choices.isEmpty()) {
            body.problem("is a choice and is missing choices: what may be chosen");
        }
        if (kind != Ask.Kind.CHOICE && entries.containsKey("choices")) {
            entries.get("choices").problemWithName("belongs to kind: choice alone");
        }
        Optional<Value> given = require(body, entries, "default", "default: what starts without a person take");
        String standard = given.filter(Value::isText).map(Value::plain).orElse("");
        Ask ask = new Ask(question, kind, standard, choices);
        given.ifPresent(value -> ask.doubt(standard).ifPresent(value::problem));
        return ask;
    }
}
