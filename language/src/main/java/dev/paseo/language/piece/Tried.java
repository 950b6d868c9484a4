package dev.paseo.language.piece;

import dev.paseo.language.Document;
import dev.paseo.language.Origin;
import dev.paseo.language.Reading;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** Reads each piece of a file as a pipeline file of its own, filled with what it would take by itself. */
final class Tried {

    private final Document document;
    private final PieceSource source;

    /** @param document where problems are told, at the piece's own lines */
    Tried(Document document, PieceSource source) {
        this.document = document;
        this.source = source;
    }

    void all(Map<String, Piece> pieces) {
        pieces.values().forEach(piece -> {
            Reading<PipelineFile> found = one(piece, pieces);
            String path = "pieces." + piece.name() + ".";
            found.problems().forEach(each -> document.problem(each.below(path)));
            found.warnings().forEach(each -> document.warning(each.below(path)));
        });
    }

    private Reading<PipelineFile> one(Piece piece, Map<String, Piece> all) {
        Map<Node, Origin> origins = new IdentityHashMap<>();
        Map<Part, Node> parts = filled(piece, origins);
        List<NodeTuple> file = new ArrayList<>(List.of(tuple("paseo", text("1")), tuple("component", text("tried"))));
        Optional.ofNullable(parts.get(Part.STAGES)).ifPresent(stages -> file.add(tuple("stages", stages)));
        deployment(parts).ifPresent(recipe -> file.add(tuple("deployment", recipe)));
        Optional.ofNullable(parts.get(Part.ROUTE)).ifPresent(route -> file.add(tuple("route", route)));
        Document tried = document.apart(new MappingNode(Tag.MAP, file, FlowStyle.BLOCK), origins);
        return PipelineFileReader.read(new Expansion(tried, source, origins).of(all));
    }

    /** Inputs stand for themselves by what holds, or by an example of their kind. */
    private static Map<Part, Node> filled(Piece piece, Map<Node, Origin> origins) {
        Map<String, Filling.Given> given = new LinkedHashMap<>();
        piece.inputs().forEach((name, input) -> given.put(name,
                new Filling.Given(input.standard().map(Value::node).orElseGet(() -> example(input)), 0, 0)));
        Filling filling = new Filling(given, node -> new Origin(node.getStartMark().map(Mark::getLine).orElse(0) + 1,
                node.getStartMark().map(Mark::getColumn).orElse(0) + 1, ""), origins, Expansion.MOST_NODES);
        Map<Part, Node> parts = new LinkedHashMap<>();
        piece.parts().forEach((part, node) -> parts.put(part, filling.fill(node)));
        return parts;
    }

    private static Node example(Input input) {
        return input.kind() == Input.Kind.LIST
                ? new SequenceNode(Tag.SEQ, List.of(text(input.example())), FlowStyle.FLOW) : text(input.example());
    }

    /** A deployment, or one made up around checks or a route that stand alone. */
    private static Optional<Node> deployment(Map<Part, Node> parts) {
        Node recipe = parts.get(Part.DEPLOYMENT);
        if (recipe != null || !parts.containsKey(Part.CHECKS) && !parts.containsKey(Part.ROUTE)) {
            return Optional.ofNullable(recipe);
        }
        List<NodeTuple> made = new ArrayList<>(List.of(
                tuple("on-each-host", new SequenceNode(Tag.SEQ, List.of(text("true")), FlowStyle.FLOW))));
        Optional.ofNullable(parts.get(Part.CHECKS)).ifPresent(checks -> made.add(tuple("checks", checks)));
        return Optional.of(new MappingNode(Tag.MAP, made, FlowStyle.BLOCK));
    }

    private static NodeTuple tuple(String key, Node value) {
        return new NodeTuple(text(key), value);
    }

    private static ScalarNode text(String text) {
        return new ScalarNode(Tag.STR, text, ScalarStyle.PLAIN);
    }
}
