package dev.paseo.language.piece;

import dev.paseo.language.NearestName;
import dev.paseo.language.Origin;
import dev.paseo.language.Value;
import java.util.LinkedHashMap;
import java.util.Map;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.Node;

/** Reads what is given to a piece: what is missing, not asked for, or of another kind is a problem. */
record Givens(Use use, String words, Piece piece) {

    /** @param place where the piece is used: what holds by itself stands there */
    Map<String, Filling.Given> read(Origin place) {
        Map<String, Filling.Given> given = new LinkedHashMap<>();
        use.given().forEach((name, value) -> {
            Input input = piece.inputs().get(name);
            if (input == null) {
                value.problemWithName("is not an input of " + words + NearestName.hint(name, piece.inputs().keySet()));
            } else {
                input.reasonAgainst(value.node()).ifPresentOrElse(
                        reason -> value.problem(reason + " (" + input.words() + ")"),
                        () -> given.put(name, given(value.node(), place)));
            }
        });
        piece.inputs().forEach((name, input) -> {
            if (!use.given().containsKey(name)) {
                input.standard().map(Value::node).ifPresentOrElse(
                        node -> given.put(name, new Filling.Given(node, place.line(), place.column())),
                        () -> use.place().problem("needs given." + name + ": " + input.words()));
            }
        });
        return given;
    }

    private Filling.Given given(Node node, Origin place) {
        return place.words().isEmpty()
                ? new Filling.Given(node, node.getStartMark().map(Mark::getLine).orElse(0) + 1,
                        node.getStartMark().map(Mark::getColumn).orElse(0) + 1)
                : new Filling.Given(node, place.line(), place.column());
    }
}
