package dev.paseo.language;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Node;

/** A YAML 1.2 document that is being read: its root, and the problems found so far. */
public final class Document {

    /** The largest file that is read, in characters. */
    public static final int MOST_CHARACTERS = 262_144;
    /** How deep a file may be nested. */
    public static final int MOST_DEPTH = 20;
    private static final int MOST_TOLD = 200;

    private final List<Problem> problems = new ArrayList<>();
    private final List<Problem> warnings = new ArrayList<>();
    private final Optional<Value> root;

    public Document(String text) {
        this.root = compose(text);
    }

    private Optional<Value> compose(String text) {
        if (text.length() > MOST_CHARACTERS) {
            problem(1, 1, "", "the file has " + text.length() + " characters; at most " + MOST_CHARACTERS + " are read");
            return Optional.empty();
        }
        LoadSettings settings = LoadSettings.builder()
                .setCodePointLimit(MOST_CHARACTERS).setMaxAliasesForCollections(50).setUseMarks(true).build();
        try {
            Optional<Node> node = new Compose(settings).composeString(text);
            if (node.isEmpty()) {
                problem(1, 1, "", "the file is empty");
            }
            return node.map(found -> new Value(this, found, "", 0));
        } catch (MarkedYamlEngineException wrong) {
            Optional<Mark> mark = wrong.getProblemMark();
            String what = Optional.ofNullable(wrong.getProblem()).orElse("this is not YAML").replaceAll("\\s+", " ");
            problem(mark.map(Mark::getLine).orElse(0) + 1, mark.map(Mark::getColumn).orElse(0) + 1, "", "not valid YAML: " + what);
        } catch (YamlEngineException wrong) {
            problem(1, 1, "", "not valid YAML: " + wrong.getMessage());
        } catch (StackOverflowError tooDeep) {
            problem(1, 1, "", "the file is nested deeper than " + MOST_DEPTH + " levels");
        }
        return Optional.empty();
    }

    public Optional<Value> root() {
        return root;
    }

    void problem(int line, int column, String path, String message) {
        if (problems.size() < MOST_TOLD) {
            problems.add(new Problem(line, column, path, message));
        }
    }

    void warning(int line, int column, String path, String message) {
        if (warnings.size() < MOST_TOLD) {
            warnings.add(new Problem(line, column, path, message));
        }
    }

    /** The value where nothing is wrong. */
    public <T> Reading<T> reading(Optional<T> value) {
        return new Reading<>(problems.isEmpty() ? value : Optional.empty(), problems, warnings);
    }
}
