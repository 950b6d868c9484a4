package dev.paseo.language;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** Where each path of a good file stands, for problems that only somebody who knows more than the file can see. */
public final class SourcePositions {

    private final Document document;
    private final Map<String, Node> nodes = new LinkedHashMap<>();

    private SourcePositions(Document document) {
        this.document = document;
    }

    public static SourcePositions of(String text) {
        return of(new Document(text));
    }

    public static SourcePositions of(Document document) {
        SourcePositions places = new SourcePositions(document);
        document.root().ifPresent(root -> places.walk(root.node(), "", 0));
        return places;
    }

    private void walk(Node node, String path, int depth) {
        nodes.putIfAbsent(path, node);
        if (depth > Document.MOST_DEPTH) {
            return;
        }
        if (node instanceof MappingNode map) {
            for (NodeTuple tuple : map.getValue()) {
                if (tuple.getKeyNode() instanceof ScalarNode key) {
                    walk(tuple.getValueNode(), path.isEmpty() ? key.getValue() : path + "." + key.getValue(),
                            depth + 1);
                }
            }
        } else if (node instanceof SequenceNode list) {
            List<Node> items = list.getValue();
            for (int at = 0; at < items.size(); at++) {
                walk(items.get(at), path + "[" + at + "]", depth + 1);
            }
        }
    }

    /** A problem with what stands at this path. */
    public Problem problem(String path, String message) {
        return Optional.ofNullable(nodes.get(path)).map(node -> document.place(node, path, message))
                .orElseGet(() -> new Problem(1, 1, path, message));
    }
}
