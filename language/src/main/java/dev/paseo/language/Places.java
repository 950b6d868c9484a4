package dev.paseo.language;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** Where each path of a good file stands, for problems that only somebody who knows more than the file can see. */
public final class Places {

    private final Map<String, Mark> marks = new LinkedHashMap<>();

    private Places() {}

    public static Places of(String text) {
        Places places = new Places();
        try {
            LoadSettings settings = LoadSettings.builder().setCodePointLimit(Document.MOST_CHARACTERS)
                    .setMaxAliasesForCollections(50).setUseMarks(true).build();
            new Compose(settings).composeString(text).ifPresent(root -> places.walk(root, "", 0));
        } catch (YamlEngineException notYaml) {
            return places;
        }
        return places;
    }

    private void walk(Node node, String path, int depth) {
        node.getStartMark().ifPresent(mark -> marks.putIfAbsent(path, mark));
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
        Optional<Mark> mark = Optional.ofNullable(marks.get(path));
        return new Problem(mark.map(Mark::getLine).orElse(0) + 1, mark.map(Mark::getColumn).orElse(0) + 1, path,
                message);
    }
}
