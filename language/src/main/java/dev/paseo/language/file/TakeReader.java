package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Take;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads what a stage takes from other components. */
public final class TakeReader {

    private TakeReader() {}

    static List<Take> read(Value value) {
        return value.items().stream().flatMap(item -> take(item).stream()).toList();
    }

    private static Optional<Take> take(Value item) {
        Map<String, Value> entries = item.entries(List.of("from", "artifact", "version", "into"));
        Optional<String> from = require(item, entries, "from", "from: the component whose artifact is taken")
                .flatMap(value -> value.text(Names.NAME, Names.NAME_WORDS));
        Optional<String> artifact = optional(entries, "artifact")
                .flatMap(value -> value.text(Names.PATTERN, Names.PATTERN_WORDS));
        Take.Which which = optional(entries, "version").flatMap(TakeReader::which).orElse(new Take.Which.Upstream());
        String into = optional(entries, "into").flatMap(Names::inside).orElse(".");
        return from.map(name -> new Take(name, artifact, which, into));
    }

    /** Which version of another component is meant. */
    public static Optional<Take.Which> which(Value value) {
        if (value.isMap()) {
            Map<String, Value> entries = value.entries(List.of("live-in"));
            return require(value, entries, "live-in", "live-in: an environment")
                    .flatMap(place -> place.text(Names.NAME, Names.NAME_WORDS))
                    .map(Take.Which.LiveIn::new);
        }
        return value.text(Names.PATTERN, Names.PATTERN_WORDS).map(text -> switch (text) {
            case "upstream" -> new Take.Which.Upstream();
            case "newest" -> new Take.Which.Newest();
            default -> new Take.Which.Matching(text);
        });
    }
}
