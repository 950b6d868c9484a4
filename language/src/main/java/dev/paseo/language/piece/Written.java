package dev.paseo.language.piece;

import dev.paseo.language.Origin;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Present;
import org.snakeyaml.engine.v2.api.lowlevel.Serialize;
import org.snakeyaml.engine.v2.comments.CommentLine;
import org.snakeyaml.engine.v2.comments.CommentType;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** Writes a file with every piece in its place; where a piece begins, a comment says which. */
final class Written {

    private static final int WIDTH = 110;

    private final Map<Node, Origin> origins;

    private Written(Map<Node, Origin> origins) {
        this.origins = origins;
    }

    static String of(Node root, Map<Node, Origin> origins) {
        DumpSettings settings = DumpSettings.builder().setDumpComments(true).setIndent(2).setWidth(WIDTH)
                .setSplitLines(false).build();
        return new Present(settings)
                .emitToString(new Serialize(settings).serializeOne(new Written(origins).copy(root, "")).iterator());
    }

    /** A copy without anchors: what stands at two places is written at both. */
    private Node copy(Node node, String above) {
        return switch (node) {
            case MappingNode map -> {
                List<NodeTuple> tuples = new ArrayList<>();
                String before = above;
                for (NodeTuple tuple : map.getValue()) {
                    String piece = piece(tuple.getKeyNode());
                    Node key = copy(tuple.getKeyNode(), piece);
                    if (!piece.equals(before) && !piece.isEmpty()) {
                        key.setBlockComments(List.of(new CommentLine(Optional.empty(), Optional.empty(),
                                " from " + piece, CommentType.BLOCK)));
                    }
                    before = piece;
                    tuples.add(new NodeTuple(key, copy(tuple.getValueNode(), piece)));
                }
                yield new MappingNode(map.getTag(), tuples, map.getFlowStyle());
            }
            case SequenceNode list -> new SequenceNode(list.getTag(),
                    list.getValue().stream().map(item -> copy(item, above)).toList(), list.getFlowStyle());
            case ScalarNode scalar -> new ScalarNode(scalar.getTag(), scalar.getValue(), scalar.getScalarStyle());
            default -> node;
        };
    }

    private String piece(Node key) {
        return Optional.ofNullable(origins.get(key)).map(Origin::words)
                .map(words -> words.replaceFirst("^line [0-9]+ of ", "")).orElse("");
    }
}
