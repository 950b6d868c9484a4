package dev.paseo.language.piece;

import dev.paseo.core.text.Sha256;
import java.util.stream.Collectors;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** What YAML says, in one form whatever its layout, comments and quotes. */
final class Canonical {

    private static final int BRIEF = 60;

    private Canonical() {}

    /** SHA-256 of what a piece says. */
    static String digest(Piece piece) {
        return Sha256.hex(text(piece.body()));
    }

    private static String text(Node node) {
        return switch (node) {
            case MappingNode map -> map.getValue().stream()
                    .map(tuple -> text(tuple.getKeyNode()) + ":" + text(tuple.getValueNode()))
                    .collect(Collectors.joining(",", "{", "}"));
            case SequenceNode list -> list.getValue().stream().map(Canonical::text)
                    .collect(Collectors.joining(",", "[", "]"));
            case ScalarNode scalar -> "\"" + scalar.getValue().replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
            default -> "";
        };
    }

    /** A value as a person reads it in a line. */
    static String brief(Node node) {
        String words = node instanceof SequenceNode list
                ? list.getValue().isEmpty() ? "none"
                        : list.getValue().stream().map(Canonical::brief).collect(Collectors.joining(", "))
                : node instanceof ScalarNode scalar ? scalar.getValue() : "";
        return words.length() > BRIEF ? words.substring(0, BRIEF) + "…" : words;
    }
}
