package dev.paseo.language.piece;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.Value;
import dev.paseo.language.file.Names;
import dev.paseo.language.file.PipelineFile.Take;
import dev.paseo.language.file.TakeReader;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Where a file says that a part of it is like a piece.
 *
 * @param of    the component whose piece it is; empty: of this very file
 * @param given what is given to it
 */
record Use(Value place, String piece, Optional<String> of, Take.Which version, Map<String, Value> given) {

    private static final List<String> KEYS = List.of("piece", "of", "version", "given");

    /** One, or several in a list. */
    static List<Use> read(Value value) {
        return (value.isList() ? value.items() : List.of(value)).stream().flatMap(each -> one(each).stream()).toList();
    }

    private static Optional<Use> one(Value value) {
        Map<String, Value> entries = value.entries(KEYS);
        Optional<String> piece = require(value, entries, "piece", "piece: its name")
                .flatMap(name -> name.text(Names.NAME, Names.NAME_WORDS));
        Optional<String> of = optional(entries, "of").flatMap(name -> name.text(Names.NAME, Names.NAME_WORDS));
        Optional<Value> version = optional(entries, "version");
        Take.Which which = version.flatMap(TakeReader::which).orElse(new Take.Which.Newest());
        if (which instanceof Take.Which.Upstream) {
            version.ifPresent(each -> each.problem(
                    "should be newest, a pattern such as \"2.*\", or {live-in: …}: a piece does not come upstream"));
        }
        if (of.isEmpty() && !entries.containsKey("of")) {
            version.ifPresent(each -> each.problemWithName("belongs to a piece of another component: say of"));
        }
        Map<String, Value> given = optional(entries, "given").map(Value::entries).orElse(Map.of());
        return piece.map(name -> new Use(value, name, of, which, given));
    }
}
