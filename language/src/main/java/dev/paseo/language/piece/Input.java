package dev.paseo.language.piece;

import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Ask;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * What a piece is given.
 *
 * @param words    what it is, for whoever gives it
 * @param standard what holds where nothing is given; empty: it has to be
 * @param of       the values that may be given, where it is one of several
 */
record Input(String words, Kind kind, Optional<Value> standard, List<String> of) {

    private static final Pattern DURATION = Pattern.compile("[0-9]{1,6}(ms|s|m|h|d)");
    private static final int LONGEST = 2000;
    private static final int MOST = 100;

    /** What may be given. */
    enum Kind {
        FLAG("flag"), TEXT("text"), NUMBER("number"), ONE_OF("one-of"), LIST("list"), DURATION("duration");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        String word() {
            return word;
        }

        static Map<String, Kind> byWord() {
            Map<String, Kind> kinds = new TreeMap<>();
            for (Kind kind : values()) {
                kinds.put(kind.word, kind);
            }
            return kinds;
        }
    }

    /** What a piece is tried with where nothing is given and nothing holds by itself. */
    String example() {
        return switch (kind) {
            case FLAG -> "true";
            case TEXT, LIST -> "given";
            case NUMBER -> "1";
            case ONE_OF -> of.isEmpty() ? "given" : of.getFirst();
            case DURATION -> "1m";
        };
    }

    /** Why this cannot be given; empty where it can. */
    Optional<String> reasonAgainst(Node given) {
        if (kind == Kind.LIST) {
            return given instanceof SequenceNode list && list.getValue().size() <= MOST
                    && list.getValue().stream()
                            .allMatch(item -> item instanceof ScalarNode text && text.getValue().length() <= LONGEST)
                                    ? Optional.empty()
                                    : Optional.of("should be a list of at most " + MOST + " texts" + found(given));
        }
        if (!(given instanceof ScalarNode scalar)) {
            return Optional.of("should be " + kind.word() + found(given));
        }
        String text = scalar.getValue();
        return switch (kind) {
            case FLAG -> new Ask("", Ask.Kind.FLAG, "", of).reasonAgainst(text);
            case TEXT -> new Ask("", Ask.Kind.TEXT, "", of).reasonAgainst(text);
            case NUMBER -> new Ask("", Ask.Kind.NUMBER, "", of).reasonAgainst(text);
            case ONE_OF -> new Ask("", Ask.Kind.ONE_OF, "", of).reasonAgainst(text);
            default -> DURATION.matcher(text).matches() ? Optional.empty()
                    : Optional.of("should be a length of time such as 30s, 5m or 48h; got “" + text + "”");
        };
    }

    private static String found(Node given) {
        return given instanceof SequenceNode ? "; got a list"
                : given instanceof ScalarNode text ? "; got “" + text.getValue() + "”" : "; got a mapping";
    }
}
