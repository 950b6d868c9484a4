package dev.paseo.language.piece;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.NearestName;
import dev.paseo.language.Value;
import dev.paseo.language.file.Names;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.snakeyaml.engine.v2.nodes.Node;

/** Reads the {@code pieces} of a pipeline file: what each has, is given, and lets be changed. */
final class PieceReader {

    private static final int MOST_PIECES = 100;
    private static final int MOST_INPUTS = 50;
    private static final List<String> KEYS = Stream
            .concat(Stream.of("summary", "inputs", "may-change"), Part.keys().stream()).toList();
    private static final Map<String, Input.Kind> KINDS = Input.Kind.byWord();

    private PieceReader() {}

    static Map<String, Piece> read(Value value) {
        Map<String, Piece> pieces = new LinkedHashMap<>();
        Map<String, Value> entries = value.entries();
        if (entries.size() > MOST_PIECES) {
            value.problem("has " + entries.size() + " pieces; at most " + MOST_PIECES + " are allowed");
            return pieces;
        }
        entries.forEach((name, body) -> {
            if (!Names.NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            pieces.put(name, piece(name, body));
        });
        return pieces;
    }

    private static Piece piece(String name, Value body) {
        Map<String, Value> entries = body.entries(KEYS);
        Map<String, Input> inputs = optional(entries, "inputs").map(PieceReader::inputs).orElse(Map.of());
        Map<Part, Node> parts = new LinkedHashMap<>();
        Set<String> used = new TreeSet<>();
        entries.forEach((key, value) -> Part.of(key).ifPresent(part -> {
            parts.put(part, value.node());
            uses(value, inputs, used);
        }));
        if (parts.isEmpty()) {
            body.problem("needs what it brings: " + String.join(", ", Part.keys()));
        }
        inputs.keySet().stream().filter(input -> !used.contains(input)).forEach(
                input -> optional(entries, "inputs").map(Value::entries).map(all -> all.get(input))
                        .ifPresent(value -> value.problemWithName("is used nowhere in the piece: write {given."
                                + input + "} where it belongs, in quotes")));
        List<String> mayChange = optional(entries, "may-change").map(value -> mayChange(value, parts))
                .orElse(List.of());
        return new Piece(name, optional(entries, "summary").flatMap(Value::text).orElse(""), inputs, parts, mayChange,
                body.node());
    }

    private static Map<String, Input> inputs(Value value) {
        Map<String, Input> inputs = new LinkedHashMap<>();
        Map<String, Value> entries = value.entries();
        if (entries.size() > MOST_INPUTS) {
            value.problem("has " + entries.size() + " inputs; at most " + MOST_INPUTS + " are allowed");
        }
        entries.forEach((name, body) -> {
            if (!Names.NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            inputs.put(name, input(body));
        });
        return inputs;
    }

    private static Input input(Value body) {
        Map<String, Value> entries = body.entries(List.of("words", "kind", "default", "of"));
        String words = require(body, entries, "words", "words: what it is, for whoever gives it").flatMap(Value::text)
                .orElse("");
        Input.Kind kind = require(body, entries, "kind", "kind: flag, text, number, one-of, list or duration")
                .flatMap(value -> value.choice(KINDS)).orElse(Input.Kind.TEXT);
        List<String> of = optional(entries, "of").map(Value::texts).orElse(List.of());
        if (kind == Input.Kind.ONE_OF && of.isEmpty()) {
            body.problem("needs of: the values that may be given");
        } else if (kind != Input.Kind.ONE_OF && entries.containsKey("of")) {
            entries.get("of").problemWithName("belongs to kind: one-of alone");
        }
        Input input = new Input(words, kind, optional(entries, "default"), of);
        input.standard().ifPresent(value -> input.reasonAgainst(value.node()).ifPresent(value::problem));
        return input;
    }

    /** Which inputs a part uses; those that the piece has not, and lists within a text, are problems. */
    private static void uses(Value value, Map<String, Input> inputs, Set<String> used) {
        if (value.isMap()) {
            value.entries().forEach((name, inner) -> {
                uses(inner, name, true, inputs, used);
                uses(inner, inputs, used);
            });
        } else if (value.isList()) {
            value.items().forEach(item -> uses(item, inputs, used));
        } else {
            uses(value, value.plain(), false, inputs, used);
        }
    }

    private static void uses(Value at, String text, boolean asName, Map<String, Input> inputs, Set<String> used) {
        for (String name : Filling.inputs(text)) {
            Input input = inputs.get(name);
            if (input == null) {
                at.problem("has no input " + name + NearestName.hint(name, inputs.keySet()));
            } else if (input.kind() == Input.Kind.LIST && (asName || !text.equals("{given." + name + "}"))) {
                at.problem("{given." + name + "} is a list, and cannot stand within a text");
            }
            used.add(name);
        }
    }

    private static List<String> mayChange(Value value, Map<Part, Node> parts) {
        for (Value item : value.items()) {
            item.text().filter(path -> parts.keySet().stream().filter(part -> part != Part.ROUTE).noneMatch(
                    part -> path.equals(part.path()) || path.startsWith(part.path() + ".")))
                    .ifPresent(path -> item.problem("should be a path within what the piece brings, such as "
                            + "stages.compile.wants or deployment.strategy"));
        }
        return value.texts();
    }

    static Described described(Piece piece) {
        return new Described(piece.name(), piece.summary(),
                piece.inputs().entrySet().stream().map(each -> new Described.Given(each.getKey(),
                        each.getValue().words(), each.getValue().kind().word(),
                        each.getValue().standard().map(value -> Canonical.brief(value.node())),
                        each.getValue().of())).toList(),
                piece.parts().keySet().stream().map(Part::key).toList(), piece.mayChange(), Canonical.digest(piece));
    }
}
