package dev.paseo.language.piece;

import dev.paseo.language.Document;
import dev.paseo.language.NearestName;
import dev.paseo.language.Origin;
import dev.paseo.language.Value;
import dev.paseo.language.piece.PieceSource.Found;
import dev.paseo.language.piece.PieceSource.Release;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** Puts pieces in the places of a file that are like them. */
final class Expansion {

    private static final int MOST_USES = 200;
    private static final int DEEPEST = 5;
    static final int MOST_NODES = 200_000;

    /** A piece as it is used once: what it brings, filled with what is given. */
    record Instance(String words, Piece piece, Value place, Map<Part, Node> parts) {}

    /**
     * Whose parts are put in place.
     *
     * @param within  the piece that uses others; empty: the file itself
     * @param chain   the pieces that led here
     * @param own     the pieces of its text
     * @param release of the piece; empty: the file itself
     */
    private record Level(Optional<String> within, List<String> chain, Map<String, Piece> own,
            Optional<Release> release) {}

    private final PieceSource source;
    private final Map<Node, Origin> origins;
    private final Map<String, Map<String, Piece>> read = new HashMap<>();
    private final List<Used> used = new ArrayList<>();
    private final List<Missing> missing = new ArrayList<>();
    private final Document document;
    private int uses;

    /**
     * @param document where problems are told
     * @param origins  of the nodes that do not stand in its text; filled with those that pieces bring
     */
    Expansion(Document document, PieceSource source, Map<Node, Origin> origins) {
        this.origins = origins;
        this.document = document.root().map(root -> document.with(root.node(), origins)).orElse(document);
        this.source = source;
    }

    /** Those that were used, in the order in which they are found. */
    List<Used> used() {
        return List.copyOf(used);
    }

    /** Those that were not found. */
    List<Missing> missing() {
        return List.copyOf(missing);
    }

    /** The document with every piece in its place. */
    Document of(Map<String, Piece> own) {
        return document.root().map(root -> {
            if (!(root.node() instanceof MappingNode map)) {
                return document;
            }
            try {
                return document.with(parts(map, new Level(Optional.empty(), List.of(), own, Optional.empty())),
                        origins);
            } catch (Filling.TooLarge larger) {
                root.problem("its pieces bring more than " + MOST_NODES + " values, which is the most that is read");
                return document;
            }
        }).orElse(document);
    }

    private Value value(Node node, String path) {
        return document.with(node, origins).root().orElseThrow().at(path);
    }

    private MappingNode parts(MappingNode root, Level level) {
        Map<String, NodeTuple> entries = tuples(root);
        Map<Part, List<Instance>> whole = new LinkedHashMap<>();
        Optional.ofNullable(entries.remove("like")).ifPresent(like -> Use.read(value(like.getValueNode(), "like"))
                .forEach(use -> instance(use, "", level).ifPresent(instance -> instance.parts().keySet()
                        .forEach(part -> whole.computeIfAbsent(part, any -> new ArrayList<>()).add(instance)))));
        Merging merging = new Merging(document.with(root, origins));
        part(entries, Part.STAGES, whole, level, merging);
        checks(entries, whole, level, merging);
        part(entries, Part.DEPLOYMENT, whole, level, merging);
        if (level.within().isPresent()) {
            part(entries, Part.CHECKS, whole, level, merging);
        }
        route(entries, whole.getOrDefault(Part.ROUTE, List.of()), level);
        return new MappingNode(root.getTag(), true, List.copyOf(entries.values()), root.getFlowStyle(),
                root.getStartMark(), root.getEndMark());
    }

    /** The checks of a deployment may be like a piece of their own. */
    private void checks(Map<String, NodeTuple> entries, Map<Part, List<Instance>> whole, Level level,
            Merging merging) {
        NodeTuple deployment = entries.get(Part.DEPLOYMENT.key());
        boolean ofPiece = level.within().isPresent();
        List<Instance> brought = ofPiece ? List.of() : whole.getOrDefault(Part.CHECKS, List.of());
        if (deployment == null && brought.isEmpty()
                || deployment != null && !(deployment.getValueNode() instanceof MappingNode)) {
            return;
        }
        MappingNode body = deployment == null ? mapping(brought.getFirst())
                : (MappingNode) deployment.getValueNode();
        Map<String, NodeTuple> inner = tuples(body);
        NodeTuple before = inner.get(Part.CHECKS.key());
        Map<Part, List<Instance>> here = Map.of(Part.CHECKS, brought);
        part(inner, Part.CHECKS, here, level, merging);
        if (inner.get(Part.CHECKS.key()) != before) {
            Node key = deployment == null ? key(Part.DEPLOYMENT.key(), brought.getFirst()) : deployment.getKeyNode();
            MappingNode made = new MappingNode(body.getTag(), true, List.copyOf(inner.values()), body.getFlowStyle(),
                    body.getStartMark(), body.getEndMark());
            Optional.ofNullable(origins.get(body)).ifPresent(origin -> origins.put(made, origin));
            entries.put(Part.DEPLOYMENT.key(), new NodeTuple(key, made));
        }
    }

    /** A part that is a mapping: what pieces bring, changed and added to by what stands beside them. */
    private void part(Map<String, NodeTuple> entries, Part part, Map<Part, List<Instance>> whole, Level level,
            Merging merging) {
        NodeTuple there = entries.get(part.key());
        List<Instance> before = whole.getOrDefault(part, List.of());
        if (there == null && before.isEmpty()) {
            return;
        }
        if (there != null && !(there.getValueNode() instanceof MappingNode)) {
            return;
        }
        Map<String, NodeTuple> own = there == null ? Map.of() : tuples((MappingNode) there.getValueNode());
        boolean likes = own.get("like") != null;
        if (!likes && before.isEmpty()) {
            return;
        }
        List<Instance> here = likes
                ? Use.read(value(own.get("like").getValueNode(), part.path() + ".like")).stream()
                        .flatMap(use -> instance(use, part.path(), level).stream())
                        .filter(instance -> brings(instance, part)).toList()
                : List.of();
        Node body = there == null ? mapping(before.getFirst()) : there.getValueNode();
        Node merged = merging.merge(part, (MappingNode) body, before, here);
        Optional.ofNullable(origins.get(body)).ifPresent(origin -> origins.put(merged, origin));
        entries.put(part.key(), new NodeTuple(there == null ? key(part.key(), before.getFirst()) : there.getKeyNode(),
                merged));
    }

    private static boolean brings(Instance instance, Part part) {
        if (!instance.parts().containsKey(part)) {
            instance.place().problem(instance.words() + " brings no " + part.key() + "; it brings "
                    + String.join(", ", instance.parts().keySet().stream().map(Part::key).toList()));
        }
        return instance.parts().containsKey(part);
    }

    private void route(Map<String, NodeTuple> entries, List<Instance> whole, Level level) {
        NodeTuple there = entries.get(Part.ROUTE.key());
        List<Node> steps = new ArrayList<>(whole.stream().flatMap(Expansion::steps).toList());
        boolean liked = !whole.isEmpty();
        Node body = there == null ? null : there.getValueNode();
        List<Node> own = body instanceof SequenceNode list ? list.getValue() : body == null ? List.of() : List.of(body);
        for (Node item : own) {
            NodeTuple like = item instanceof MappingNode map ? tuples(map).get("like") : null;
            if (like == null || like.getValueNode() instanceof ScalarNode) {
                steps.add(item);
                continue;
            }
            liked = true;
            if (((MappingNode) item).getValue().size() > 1) {
                value(item, Part.ROUTE.path()).problem("has like beside others; write it as a step of its own");
            }
            Use.read(value(like.getValueNode(), Part.ROUTE.path() + ".like")).stream()
                    .flatMap(use -> instance(use, Part.ROUTE.path(), level).stream())
                    .filter(instance -> brings(instance, Part.ROUTE)).flatMap(Expansion::steps).forEach(steps::add);
        }
        if (liked) {
            Node key = there == null ? key(Part.ROUTE.key(), whole.getFirst()) : there.getKeyNode();
            entries.put(Part.ROUTE.key(), new NodeTuple(key, new SequenceNode(Tag.SEQ, true, steps, FlowStyle.BLOCK,
                    key.getStartMark(), key.getEndMark())));
        }
    }

    private static Stream<Node> steps(Instance instance) {
        return instance.parts().get(Part.ROUTE) instanceof SequenceNode list ? list.getValue().stream()
                : Stream.empty();
    }

    private Optional<Instance> instance(Use use, String at, Level level) {
        if (++uses > MOST_USES) {
            if (uses == MOST_USES + 1) {
                use.place().problem("is one piece too many; a file uses at most " + MOST_USES);
            }
            return Optional.empty();
        }
        Optional<Release> release = use.of().isEmpty() ? level.release() : released(use);
        if (use.of().isPresent() && release.isEmpty()) {
            return Optional.empty();
        }
        Map<String, Piece> pieces = use.of().isEmpty() ? level.own() : pieces(release.orElseThrow(), use);
        String owner = release.map(each -> each.component() + " " + each.version()).orElse("this file");
        Piece piece = pieces.get(use.piece());
        if (piece == null) {
            use.place().problem(owner + " has no piece " + use.piece()
                    + NearestName.hint(use.piece(), pieces.keySet()));
            return Optional.empty();
        }
        String name = use.piece() + " of " + release.map(Release::component).orElse("this file");
        List<String> chain = Stream.concat(level.chain().stream(), Stream.of(name)).toList();
        if (level.chain().contains(name)) {
            use.place().problem("uses itself: " + String.join(" uses ",
                    chain.subList(level.chain().indexOf(name), chain.size())));
            return Optional.empty();
        }
        if (chain.size() > DEEPEST) {
            use.place().problem("is nested deeper than " + DEEPEST + " pieces: " + String.join(" uses ", chain));
            return Optional.empty();
        }
        release.ifPresent(each -> used.add(new Used(at, use.piece(), each.component(),
                use.of().orElse(each.component()), use.of().isEmpty() ? "the same" : use.version().words(),
                each.version(), Canonical.digest(piece),
                level.within())));
        return Optional.of(filled(use, piece,
                new Level(Optional.of(use.piece() + " of " + owner), chain, pieces, release)));
    }

    /** With what it was given, and what it uses itself. */
    private Instance filled(Use use, Piece piece, Level within) {
        String words = within.within().orElseThrow();
        Origin place = place(use.place().node());
        Filling filling = new Filling(new Givens(use, words, piece).read(place),
                node -> new Origin(place.line(), place.column(), "line " + line(node) + " of " + words), origins,
                MOST_NODES);
        MappingNode body = new MappingNode(Tag.MAP, piece.parts().entrySet().stream()
                .map(part -> new NodeTuple(key(part.getKey().key()), filling.fill(part.getValue()))).toList(),
                FlowStyle.BLOCK);
        origins.put(body, place);
        MappingNode whole = parts(body, within);
        Map<Part, Node> parts = new LinkedHashMap<>();
        tuples(whole).forEach((key, tuple) -> Part.of(key).ifPresent(part -> parts.put(part, tuple.getValueNode())));
        return new Instance(words, piece, use.place(), parts);
    }

    /** Where a node stands for whoever reads the file. */
    private Origin place(Node node) {
        Origin origin = origins.get(node);
        return origin != null ? origin
                : new Origin(line(node), node.getStartMark().map(Mark::getColumn).orElse(0) + 1, "");
    }

    private static int line(Node node) {
        return node.getStartMark().map(Mark::getLine).orElse(0) + 1;
    }

    private Optional<Release> released(Use use) {
        return switch (source.find(use.of().orElseThrow(), use.version())) {
            case Found.Is(Release release) -> Optional.of(release);
            case Found.Not(String why) -> {
                use.place().problem("the piece " + use.piece() + " of " + use.of().orElseThrow() + " " + why);
                missing.add(new Missing(use.piece(), use.of().orElseThrow(), use.version().words(), why));
                yield Optional.empty();
            }
        };
    }

    private Map<String, Piece> pieces(Release release, Use use) {
        return read.computeIfAbsent(release.text(), text -> {
            Document released = new Document(text);
            Map<String, Piece> pieces = PipelineText.pieces(released);
            released.reading(Optional.of(pieces)).problems().stream().findFirst()
                    .ifPresent(wrong -> use.place().problem("the pieces of " + release.component() + " "
                            + release.version() + " cannot be read: line " + wrong.line() + ": " + wrong.message()));
            return pieces;
        });
    }

    static Map<String, NodeTuple> tuples(MappingNode map) {
        Map<String, NodeTuple> tuples = new LinkedHashMap<>();
        for (NodeTuple tuple : map.getValue()) {
            String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "";
            // What stands there twice is left for the reader to tell.
            tuples.put(tuples.containsKey(key) ? key + "\n" + tuples.size() : key, tuple);
        }
        return tuples;
    }

    private static ScalarNode key(String word) {
        return new ScalarNode(Tag.STR, word, ScalarStyle.PLAIN);
    }

    /** A key that a piece brings to a file that does not have it. */
    private ScalarNode key(String word, Instance instance) {
        ScalarNode key = key(word);
        origins.put(key, place(instance.place().node()));
        return key;
    }

    private MappingNode mapping(Instance instance) {
        MappingNode empty = new MappingNode(Tag.MAP, List.of(), FlowStyle.BLOCK);
        origins.put(empty, place(instance.place().node()));
        return empty;
    }
}
