package dev.paseo.language.piece;

import java.util.List;
import java.util.Map;
import org.snakeyaml.engine.v2.nodes.Node;

/**
 * A named part of a pipeline file that others may be like.
 *
 * @param parts     what it brings, as it is written
 * @param mayChange the paths of what a file that is like it may change or add, each with all below it
 * @param body      all of it, as it is written
 */
record Piece(String name, String summary, Map<String, Input> inputs, Map<Part, Node> parts, List<String> mayChange,
        Node body) {

    boolean allows(String path) {
        return mayChange.stream().anyMatch(open -> path.equals(open) || path.startsWith(open + "."));
    }
}
