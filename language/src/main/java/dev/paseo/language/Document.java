package dev.paseo.language;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** A YAML 1.2 document that is being read: its root, and the problems found so far. */
public final class Document {

    /** The largest file that is read, in characters. */
    public static final int MOST_CHARACTERS = 262_144;
    /** How deep a file may be nested. */
    public static final int MOST_DEPTH = 20;
    private static final int MOST_TOLD = 200;
    private static final Set<Tag> CORE = Set.of(Tag.STR, Tag.INT, Tag.FLOAT, Tag.BOOL, Tag.NULL, Tag.MAP, Tag.SEQ);
    /** What the parser says → what it means for whoever wrote the file. */
    private static final Map<String, String> SAID = said();

    private static Map<String, String> said() {
        Map<String, String> said = new LinkedHashMap<>();
        said.put("(TAB)", "a tab stands here; YAML is indented with spaces");
        said.put("mapping values are not allowed",
                "a colon stands where no key can be: a text with a colon needs quotes, and a key the indentation of "
                        + "its neighbours");
        said.put("could not find expected ':'", "a colon is missing after a key");
        said.put("',' or ']'", "a bracket [ is not closed, or a comma is missing");
        said.put("',' or '}'", "a brace { is not closed, or a comma is missing");
        said.put("expected <block end>", "the indentation does not fit the lines above");
        said.put("unexpected end of stream", "the file ends in the middle: a quote or a bracket is open");
        said.put("undefined alias", "an alias (*) has no anchor (&) before it");
        said.put("duplicate", "a key stands here twice");
        said.put("cannot start any token", "a sign stands here that begins nothing: a text with it needs quotes");
        said.put("aliases", "it has more aliases than are read");
        said.put("special characters are not allowed", "a control character stands here");
        said.put("expected a single document", "a second document begins here; a file has one");
        return said;
    }

    private final List<Problem> problems;
    private final List<Problem> warnings;
    private final Map<Node, Origin> origins;
    private final Optional<Node> root;

    public Document(String text) {
        this.problems = new ArrayList<>();
        this.warnings = new ArrayList<>();
        this.origins = Map.of();
        this.root = compose(text);
    }

    private Document(List<Problem> problems, List<Problem> warnings, Node root, Map<Node, Origin> origins) {
        this.problems = problems;
        this.warnings = warnings;
        this.origins = origins;
        this.root = Optional.of(root);
    }

    /**
     * The document with another tree in place of its own.
     *
     * @param origins of the nodes that do not stand in this document's text, by their identity
     */
    public Document with(Node other, Map<Node, Origin> from) {
        return new Document(problems, warnings, other, from);
    }

    /** The same, with problems of its own. */
    public Document apart(Node other, Map<Node, Origin> from) {
        return new Document(new ArrayList<>(), new ArrayList<>(), other, from);
    }

    private Optional<Node> compose(String text) {
        if (text.length() > MOST_CHARACTERS) {
            problem(1, 1, "",
                    "the file has " + text.length() + " characters; at most " + MOST_CHARACTERS + " are read");
            return Optional.empty();
        }
        LoadSettings settings = LoadSettings.builder()
                .setCodePointLimit(MOST_CHARACTERS).setMaxAliasesForCollections(50).setUseMarks(true).build();
        try {
            Optional<Node> node = new Compose(settings).composeString(text);
            if (node.isEmpty()) {
                problem(1, 1, "", "the file is empty");
            }
            node.ifPresent(found -> tags(found, Collections.newSetFromMap(new IdentityHashMap<>())));
            return problems.isEmpty() ? node : Optional.empty();
        } catch (MarkedYamlEngineException wrong) {
            Optional<Mark> mark = wrong.getProblemMark();
            problem(mark.map(Mark::getLine).orElse(0) + 1, mark.map(Mark::getColumn).orElse(0) + 1, "",
                    "not valid YAML: " + words(String.valueOf(wrong.getProblem())));
        } catch (YamlEngineException wrong) {
            problem(1, 1, "", "not valid YAML: " + words(String.valueOf(wrong.getMessage())));
        } catch (StackOverflowError tooDeep) {
            problem(1, 1, "", "the file is nested deeper than " + MOST_DEPTH + " levels");
        }
        return Optional.empty();
    }

    /** What the parser found, in words for whoever wrote the file. */
    private static String words(String found) {
        return SAID.entrySet().stream().filter(each -> found.contains(each.getKey())).map(Map.Entry::getValue)
                .findFirst().orElse("it cannot be read from here on");
    }

    /** Only tags of YAML's core schema mean something here. */
    private void tags(Node node, Set<Node> seen) {
        if (!seen.add(node)) {
            return;
        }
        if (!CORE.contains(node.getTag())) {
            Optional<Mark> mark = node.getStartMark();
            problem(mark.map(Mark::getLine).orElse(0) + 1, mark.map(Mark::getColumn).orElse(0) + 1, "",
                    "the tag " + node.getTag().getValue() + " is not one of YAML's core schema");
        }
        if (node instanceof MappingNode mapping) {
            mapping.getValue().forEach(each -> {
                tags(each.getKeyNode(), seen);
                tags(each.getValueNode(), seen);
            });
        } else if (node instanceof SequenceNode sequence) {
            sequence.getValue().forEach(each -> tags(each, seen));
        }
    }

    public Optional<Value> root() {
        return root.map(node -> new Value(this, node, "", 0));
    }

    /** Tells a problem with what stands at this path. */
    public void problem(Node at, String path, String message) {
        problem(place(at, path, message));
    }

    /** Tells a problem that was found. */
    public void problem(Problem problem) {
        if (problems.size() < MOST_TOLD) {
            problems.add(problem);
        }
    }

    /** Tells something about what stands at this path that keeps nobody from using the file. */
    public void warning(Node at, String path, String message) {
        warning(place(at, path, message));
    }

    /** Tells something that was found, and keeps nobody from using the file. */
    public void warning(Problem problem) {
        if (warnings.size() < MOST_TOLD) {
            warnings.add(problem);
        }
    }

    /** A problem with a node, at the place in this document's text where it, or what brought it here, stands. */
    Problem place(Node at, String path, String message) {
        Origin origin = origins.get(at);
        if (origin != null) {
            return new Problem(origin.line(), origin.column(), path,
                    origin.words().isEmpty() ? message : message + " (" + origin.words() + ")");
        }
        return new Problem(at.getStartMark().map(Mark::getLine).orElse(0) + 1,
                at.getStartMark().map(Mark::getColumn).orElse(0) + 1, path, message);
    }

    private void problem(int line, int column, String path, String message) {
        problem(new Problem(line, column, path, message));
    }

    /** The value where nothing is wrong. */
    public <T> Reading<T> reading(Optional<T> value) {
        return new Reading<>(problems.isEmpty() ? value : Optional.empty(), problems, warnings);
    }
}
