package dev.paseo.language.piece;

import dev.paseo.language.Origin;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** Makes a part of a piece anew with what is given to it, and writes down where each node of it comes from. */
final class Filling {

    private static final Pattern INPUT = Pattern.compile("\\{given\\.([^{}]*)}");

    /** More than any file may have. */
    static final class TooLarge extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    /**
     * What is given.
     *
     * @param line   of the file that uses the piece: where it is given; 0: it is told where it is used
     * @param column of that file
     */
    record Given(Node node, int line, int column) {}

    private final Map<String, Given> given;
    private final Function<Node, Origin> from;
    private final Map<Node, Origin> origins;
    private final int most;
    private final Map<Node, Node> made = new IdentityHashMap<>();

    /**
     * @param given   of each input its value
     * @param from    a node of the piece to where it stands for the file that uses it
     * @param origins filled with those of the nodes that are made
     * @param most    how many nodes there may be in all
     */
    Filling(Map<String, Given> given, Function<Node, Origin> from, Map<Node, Origin> origins, int most) {
        this.given = given;
        this.from = from;
        this.origins = origins;
        this.most = most;
    }

    /** The inputs that a text names. */
    static List<String> inputs(String text) {
        return INPUT.matcher(text).results().map(found -> found.group(1)).toList();
    }

    Node fill(Node node) {
        Node known = made.get(node);
        if (known != null) {
            return known;
        }
        Node fresh = switch (node) {
            case MappingNode map -> new MappingNode(map.getTag(), map.getValue().stream()
                    .map(each -> new NodeTuple(fill(each.getKeyNode()), fill(each.getValueNode()))).toList(),
                    map.getFlowStyle());
            case SequenceNode list -> new SequenceNode(list.getTag(), list.getValue().stream().map(this::fill).toList(),
                    list.getFlowStyle());
            case ScalarNode scalar -> scalar(scalar);
            default -> node;
        };
        made.put(node, fresh);
        if (!origins.containsKey(fresh)) {
            keep(fresh, from.apply(node));
        }
        return fresh;
    }

    private void keep(Node fresh, Origin origin) {
        if (origins.size() >= most) {
            throw new TooLarge();
        }
        origins.put(fresh, origin);
    }

    private Node scalar(ScalarNode scalar) {
        Matcher whole = INPUT.matcher(scalar.getValue());
        if (whole.matches()) {
            return Optional.ofNullable(given.get(whole.group(1))).map(each -> copy(each, scalar))
                    .orElse(scalar);
        }
        String text = INPUT.matcher(scalar.getValue())
                .replaceAll(found -> Matcher.quoteReplacement(
                        given.get(found.group(1)) instanceof Given(ScalarNode value, int line, int column)
                                ? value.getValue() : found.group()));
        return new ScalarNode(scalar.getTag(), text, scalar.getScalarStyle());
    }

    /** What is given stands for itself wherever it is used; a problem with it is one where it is given. */
    private Node copy(Given value, Node at) {
        Node copied = value.node() instanceof SequenceNode list
                ? new SequenceNode(list.getTag(), list.getValue().stream()
                        .map(item -> copy(new Given(item, value.line(), value.column()), at)).toList(),
                        list.getFlowStyle())
                : text((ScalarNode) value.node());
        Origin used = from.apply(at);
        keep(copied, value.line() == 0 ? used : new Origin(value.line(), value.column(), used.words()));
        return copied;
    }

    private static Node text(ScalarNode scalar) {
        return new ScalarNode(scalar.getTag(), scalar.getValue(), scalar.getScalarStyle());
    }
}
