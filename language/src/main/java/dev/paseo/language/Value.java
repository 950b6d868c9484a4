package dev.paseo.language;

import dev.paseo.core.text.Length;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/** One value of a document, with its place. What it should be and is not becomes a problem of the document. */
public final class Value {

    private static final Pattern DURATION = Pattern.compile("([0-9]{1,6})(ms|s|m|h|d)");

    private final Document document;
    private final Node node;
    private final String path;
    private final int depth;
    private final Node place;

    Value(Document document, Node node, String path, int depth) {
        this(document, node, node, path, depth);
    }

    /** @param place where a problem with its name is told: its key */
    private Value(Document document, Node node, Node place, String path, int depth) {
        this.document = document;
        this.node = node;
        this.place = place;
        this.path = path;
        this.depth = depth;
    }

    /** Tells a problem with the value. */
    public void problem(String message) {
        document.problem(node, path, message);
    }

    /** Tells a problem with the value's name, where that stands. */
    public void problemWithName(String message) {
        document.problem(place, path, message);
    }

    /** Tells something about the value's name that keeps nobody from using the file. */
    private void warningWithName(String message) {
        document.warning(place, path, message);
    }

    /** The same, under another path. */
    public Value at(String other) {
        return new Value(document, node, place, other, depth);
    }

    /** What was read, as the YAML library has it. */
    public Node node() {
        return node;
    }

    private Value child(Node inner, String name) {
        return new Value(document, inner,
                path.isEmpty() ? name : name.startsWith("[") ? path + name : path + "." + name, depth + 1);
    }

    /** Its text as it stands, empty where it is none; tells no problem. */
    public String plain() {
        return node instanceof ScalarNode scalar ? scalar.getValue() : "";
    }

    public boolean isText() {
        return node instanceof ScalarNode;
    }

    public boolean isList() {
        return node instanceof SequenceNode;
    }

    public boolean isMap() {
        return node instanceof MappingNode;
    }

    private String found() {
        return switch (node) {
            case ScalarNode scalar when scalar.getValue().isEmpty() -> "nothing";
            case ScalarNode scalar -> "“"
                    + (scalar.getValue().length() > 40 ? scalar.getValue().substring(0, 40) + "…" : scalar.getValue())
                    + "”";
            case SequenceNode list -> "a list";
            case MappingNode map -> "a mapping";
            default -> "something else";
        };
    }

    /** Its entries in the order of the file; keys given twice are a problem. */
    public Map<String, Value> entries() {
        Map<String, Value> entries = new LinkedHashMap<>();
        if (!(node instanceof MappingNode map)) {
            problem("should be a mapping of names to values, found " + found());
            return entries;
        }
        if (depth > Document.MOST_DEPTH) {
            problem("is nested deeper than " + Document.MOST_DEPTH + " levels");
            return entries;
        }
        for (NodeTuple tuple : map.getValue()) {
            Value key = child(tuple.getKeyNode(), "");
            String name = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "";
            if (name.isEmpty()) {
                key.problem("a key should be a plain word");
            } else if (entries.containsKey(name)) {
                child(tuple.getKeyNode(), name).problem("is given twice");
            } else {
                String inner = path.isEmpty() ? name : path + "." + name;
                entries.put(name, new Value(document, tuple.getValueNode(), tuple.getKeyNode(), inner, depth + 1));
            }
        }
        return entries;
    }

    /** Its entries, where only these keys are known. */
    public Map<String, Value> entries(List<String> known) {
        return entries(known, FormerWords.NONE);
    }

    /**
     * Its entries, where only these keys are known. What stands under the former word of a key is given under its
     * present one, with a warning; both beside each other are a problem.
     */
    public Map<String, Value> entries(List<String> known, FormerWords former) {
        Map<String, Value> entries = new LinkedHashMap<>();
        entries().forEach((name, value) -> {
            Optional<String> present = former.present(name);
            if (present.isEmpty() && !known.contains(name)) {
                value.problemWithName("is not a key that is known here" + NearestName.hint(name, known));
            }
            present.ifPresent(word -> value.warningWithName("is now written " + word));
            if (entries.putIfAbsent(present.orElse(name), value) != null) {
                value.problemWithName(present.map(word -> "is the former word for " + word + ": write only one of them")
                        .orElse("is also given by its former word: write only " + name));
            }
        });
        return entries;
    }

    public List<Value> items() {
        if (!(node instanceof SequenceNode list)) {
            problem("should be a list, found " + found());
            return List.of();
        }
        List<Value> items = new ArrayList<>();
        for (int at = 0; at < list.getValue().size(); at++) {
            items.add(child(list.getValue().get(at), "[" + at + "]"));
        }
        return items;
    }

    public Optional<String> text() {
        if (node instanceof ScalarNode scalar && !scalar.getValue().isBlank()) {
            return Optional.of(scalar.getValue());
        }
        problem("should be text, found " + found());
        return Optional.empty();
    }

    public Optional<String> text(Pattern allowed, String words) {
        Optional<String> text = text();
        if (text.isPresent() && !allowed.matcher(text.get()).matches()) {
            problem("should be " + words + ", found " + found());
            return Optional.empty();
        }
        return text;
    }

    public <T> Optional<T> choice(Map<String, T> choices) {
        Optional<String> text = text();
        if (text.isPresent() && !choices.containsKey(text.get())) {
            problem("should be one of " + String.join(", ", choices.keySet().stream().sorted().toList()) + ", found "
                    + found());
        }
        return text.map(choices::get);
    }

    /** One of these; a former word means its present one, with a warning. */
    public <T> Optional<T> choice(Map<String, T> choices, FormerWords former) {
        Optional<String> present = former.present(plain());
        present.ifPresent(
                word -> document.warning(node, path, "\"" + plain() + "\" is now written " + word));
        return present.isPresent() ? present.map(choices::get) : choice(choices);
    }

    /** {@code true} or {@code false}. */
    public Optional<Boolean> flag() {
        return choice(Map.of("true", true, "false", false));
    }

    public List<String> texts() {
        return items().stream().flatMap(item -> item.text().stream()).toList();
    }

    public Map<String, String> textsByName(Pattern names, String words) {
        Map<String, String> texts = new LinkedHashMap<>();
        entries().forEach((name, value) -> {
            if (!names.matcher(name).matches()) {
                value.problemWithName("its name should be " + words);
            }
            value.text().ifPresent(text -> texts.put(name, text));
        });
        return texts;
    }

    /** A whole number within these bounds, both included. */
    public Optional<Integer> number(int least, int most) {
        Optional<Integer> number = Optional.empty();
        if (node instanceof ScalarNode scalar && scalar.getValue().matches("-?[0-9]{1,9}")) {
            number = Optional.of(Integer.parseInt(scalar.getValue())).filter(n -> n >= least && n <= most);
        }
        if (number.isEmpty()) {
            problem("should be a whole number from " + least + " to " + most + ", found " + found());
        }
        return number;
    }

    /** A length of time such as {@code 30s}, {@code 5m} or {@code 48h}, more than none and at most this long. */
    public Optional<Duration> duration(Duration most) {
        Optional<Duration> duration = text().flatMap(Value::parseDuration)
                .filter(d -> d.isPositive() && d.compareTo(most) <= 0);
        if (duration.isEmpty() && node instanceof ScalarNode) {
            problem("should be a length of time such as 30s, 5m or 48h, at most " + Length.written(most) + ", found "
                    + found());
        }
        return duration;
    }

    private static Optional<Duration> parseDuration(String text) {
        Matcher matcher = DURATION.matcher(text);
        if (!matcher.matches()) {
            return Optional.empty();
        }
        long count = Long.parseLong(matcher.group(1));
        return Optional.of(switch (matcher.group(2)) {
            case "ms" -> Duration.ofMillis(count);
            case "s" -> Duration.ofSeconds(count);
            case "m" -> Duration.ofMinutes(count);
            case "h" -> Duration.ofHours(count);
            default -> Duration.ofDays(count);
        });
    }
}
