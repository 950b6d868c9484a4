package dev.paseo.language.piece;

import dev.paseo.language.Document;
import dev.paseo.language.piece.Expansion.Instance;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.Tag;

/**
 * Lays what a file says over what its pieces bring: by name, and only where a piece lets it be changed. Stages beside
 * those of a piece are the file's own affair; of a deployment and its checks, what a piece does not say is part of what
 * it decided.
 */
final class Merging {

    /** A name of a part with the piece that brought it. */
    private record Brought(NodeTuple tuple, Instance from) {}

    private final Document document;

    /** @param document where problems are told */
    Merging(Document document) {
        this.document = document;
    }

    /**
     * @param body   what the file says of the part
     * @param before what comes before all of it
     * @param here   what comes where {@code like} stands in it
     */
    MappingNode merge(Part part, MappingNode body, List<Instance> before, List<Instance> here) {
        Map<String, Brought> brought = new LinkedHashMap<>();
        before.forEach(instance -> bring(part, instance, brought));
        here.forEach(instance -> bring(part, instance, brought));
        List<Instance> all = new ArrayList<>(before);
        all.addAll(here);
        Map<String, NodeTuple> own = Expansion.tuples(body);
        Map<String, NodeTuple> merged = new LinkedHashMap<>();
        brought.forEach((name, each) -> {
            if (before.contains(each.from())) {
                merged.put(name, each.tuple());
            }
        });
        own.forEach((name, tuple) -> {
            if (name.equals("like")) {
                brought.forEach((key, each) -> merged.putIfAbsent(key, each.tuple()));
            } else if (!brought.containsKey(name)) {
                merged.put(name, tuple);
            }
        });
        own.forEach((name, tuple) -> {
            Brought known = brought.get(name);
            String path = part.path() + "." + name;
            if (known != null) {
                merged.put(name, new NodeTuple(tuple.getKeyNode(),
                        over(path, known.tuple().getValueNode(), tuple.getValueNode(), known.from())));
            } else if (part != Part.STAGES && !name.equals("like")) {
                all.stream().filter(instance -> !instance.piece().allows(path)).findFirst()
                        .ifPresent(instance -> refuse(tuple.getKeyNode(), path, "is not said by ", instance));
            }
        });
        return new MappingNode(Tag.MAP, true, List.copyOf(merged.values()), FlowStyle.BLOCK, body.getStartMark(),
                body.getEndMark());
    }

    private void bring(Part part, Instance instance, Map<String, Brought> brought) {
        if (!(instance.parts().get(part) instanceof MappingNode map)) {
            return;
        }
        Expansion.tuples(map).forEach((name, tuple) -> {
            Brought other = brought.putIfAbsent(name, new Brought(tuple, instance));
            if (other != null) {
                instance.place().problem("brings " + part.path() + "." + name + ", as " + other.from().words()
                        + " does: give one of them another name by an input");
            }
        });
    }

    private Node over(String path, Node brought, Node own, Instance from) {
        boolean free = from.piece().allows(path);
        if (!(brought instanceof MappingNode map) || !(own instanceof MappingNode changes)) {
            if (!free) {
                refuse(own, path, "is said by ", from);
                return brought;
            }
            return own;
        }
        Map<String, NodeTuple> merged = Expansion.tuples(map);
        Expansion.tuples(changes).forEach((name, tuple) -> {
            NodeTuple known = merged.get(name);
            String inner = path + "." + name;
            if (known != null) {
                merged.put(name, new NodeTuple(known.getKeyNode(),
                        over(inner, known.getValueNode(), tuple.getValueNode(), from)));
            } else if (from.piece().allows(inner)) {
                merged.put(name, tuple);
            } else {
                refuse(tuple.getKeyNode(), inner, "is not said by ", from);
            }
        });
        return new MappingNode(Tag.MAP, true, List.copyOf(merged.values()), FlowStyle.BLOCK, changes.getStartMark(),
                changes.getEndMark());
    }

    private void refuse(Node at, String path, String how, Instance from) {
        List<String> open = from.piece().mayChange();
        document.problem(at, path, how + from.words() + ", which does not let it be changed; "
                + (open.isEmpty() ? "nothing of it may be changed" : "it lets be changed: " + String.join(", ", open)));
    }
}
