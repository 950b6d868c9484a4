package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.FormerWords;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Ask;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads what a person who starts a run is asked. */
final class AsksReader {

    private static final int MOST_ASKS = 50;
    private static final Map<String, Ask.Kind> KINDS = Map.of("flag", Ask.Kind.FLAG, "text", Ask.Kind.TEXT, "number",
            Ask.Kind.NUMBER, "one-of", Ask.Kind.ONE_OF);

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
        Map<String, Value> entries = body.entries(List.of("question", "kind", "default", "of"), FormerWords.ASKS);
        String question = require(body, entries, "question", "question: what a person is asked").flatMap(Value::text)
                .orElse("");
        Ask.Kind kind = require(body, entries, "kind", "kind: flag, text, number or one-of")
                .flatMap(value -> value.choice(KINDS, FormerWords.KINDS)).orElse(Ask.Kind.TEXT);
        List<String> of = optional(entries, "of").map(Value::texts).orElse(List.of());
        if (kind == Ask.Kind.ONE_OF && of.isEmpty()) {
            optional(entries, "of").ifPresentOrElse(value -> value.problem("should list at least one answer"),
                    () -> body.problem("needs of: the answers that may be given"));
        }
        if (kind != Ask.Kind.ONE_OF && entries.containsKey("of")) {
            entries.get("of").problemWithName("belongs to kind: one-of alone");
        }
        Optional<Value> given = require(body, entries, "default", "default: what starts without a person take");
        String standard = given.filter(Value::isText).map(Value::plain).orElse("");
        Ask ask = new Ask(question, kind, standard, of);
        given.filter(value -> kind != Ask.Kind.ONE_OF || !of.isEmpty())
                .ifPresent(value -> ask.reasonAgainst(standard).ifPresent(value::problem));
        return ask;
    }
}
