package dev.paseo.language.piece;

import dev.paseo.language.Document;
import dev.paseo.language.Origin;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.Reading;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;

/** A pipeline file as it is written, with the pieces that it has and those that it uses. */
public final class PipelineText {

    private static final Pattern LIKE = Pattern.compile("(?m)^[^#]*\\blike\\s*:");

    private final Document whole;
    private final Reading<PipelineFile> reading;
    private final List<Used> used;
    private final List<Missing> missing;
    private final Map<String, Piece> pieces;
    private final Map<Node, Origin> origins = new IdentityHashMap<>();

    private PipelineText(String text, PieceSource source) {
        Document written = new Document(text);
        this.pieces = pieces(written);
        Expansion expansion = new Expansion(written, source, origins);
        this.whole = expansion.of(pieces);
        this.used = expansion.used();
        this.missing = expansion.missing();
        new Tried(written, source).all(pieces);
        this.reading = PipelineFileReader.read(whole);
    }

    /** Reads a file and puts the pieces that it uses in their places; finds all that is wrong with either. */
    public static PipelineText read(String text, PieceSource source) {
        return new PipelineText(text, source);
    }

    /** Whether a text may use a piece at all; true for some that do not. */
    public static boolean mayUse(String text) {
        return LIKE.matcher(text).find();
    }

    /** The pieces that a text has; none where it cannot be read. */
    public static List<Described> piecesOf(String text) {
        return pieces(new Document(text)).values().stream().map(PieceReader::described).toList();
    }

    static Map<String, Piece> pieces(Document document) {
        return entry(document, "pieces").map(PieceReader::read).orElseGet(LinkedHashMap::new);
    }

    /** What stands under a key; what is wrong with others is left for the reader to tell. */
    private static Optional<Value> entry(Document document, String key) {
        return document.root().map(Value::node).filter(MappingNode.class::isInstance)
                .map(root -> Expansion.tuples((MappingNode) root).get(key))
                .map(tuple -> document.with(tuple.getValueNode(), Map.of()).root().orElseThrow().at(key));
    }

    /** The component that it names. */
    public Optional<String> component() {
        return entry(whole, "component").map(Value::plain).filter(name -> !name.isEmpty());
    }

    /** What it says, with every piece in its place. */
    public Reading<PipelineFile> reading() {
        return reading;
    }

    /** Where what it says stands: of what a piece brings, where the piece is used. */
    public SourcePositions places() {
        return SourcePositions.of(whole);
    }

    /** The pieces that it uses, in their order, each with those that it uses in its turn behind it. */
    public List<Used> used() {
        return used;
    }

    /** The pieces that it asks for and that were not found. */
    public List<Missing> missing() {
        return missing;
    }

    /** The pieces that it has. */
    public List<Described> pieces() {
        return pieces.values().stream().map(PieceReader::described).toList();
    }

    /** The file as it is in force: every piece in its place, with a comment where it comes from. */
    public String expanded() {
        return whole.root().map(Value::node).map(root -> Written.of(root, origins)).orElse("");
    }
}
