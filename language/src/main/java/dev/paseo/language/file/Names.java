package dev.paseo.language.file;

import dev.paseo.language.NearestName;
import dev.paseo.language.Value;
import dev.paseo.language.condition.Condition;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Names, paths and placeholders, as the parts of a pipeline file share them. */
public final class Names {

    /** Names of components, stages, artifacts, environments and hosts. */
    public static final Pattern NAME = Pattern.compile("[a-z0-9][a-z0-9-]{0,62}");
    public static final String NAME_WORDS = "small letters, digits and dashes, at most 63, beginning with a letter "
            + "or digit";
    /** Names of variables and secrets. */
    public static final Pattern VARIABLE = Pattern.compile("(?!PASEO_)[A-Z][A-Z0-9_]{0,62}");
    public static final String VARIABLE_WORDS = "capital letters, digits and _, and not PASEO_ at its beginning";

    /** Patterns of branches, artifacts and versions. */
    static final Pattern PATTERN = Pattern.compile(".{1,200}");
    static final String PATTERN_WORDS = "a name or pattern of at most 200 characters";

    private static final Pattern PLACEHOLDER = Pattern.compile("\\{([^{}]*)}");

    private Names() {}

    /**
     * The name of an artifact that arrives as a file: without the version and what follows, so {@code
     * hut-planner-2.3.0.tgz} is {@code hut-planner}.
     */
    public static String artifact(String fileName, String number) {
        int at = fileName.indexOf(number);
        String stem = at > 0 ? fileName.substring(0, at) : fileName.replaceFirst("\\.(tar\\.)?[A-Za-z0-9]+$", "");
        String name = stem.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return name.isEmpty() ? "file" : name.substring(0, Math.min(63, name.length()));
    }

    public static Optional<Value> optional(Map<String, Value> entries, String key) {
        return Optional.ofNullable(entries.get(key));
    }

    public static Optional<Value> require(Value owner, Map<String, Value> entries, String key, String words) {
        if (!entries.containsKey(key)) {
            owner.problem("needs " + words);
        }
        return optional(entries, key);
    }

    /** A path or pattern that stays within its folder. */
    static void insideOnly(Value value, String path) {
        if (path.startsWith("/") || List.of(path.split("/")).contains("..") || path.contains("\\")) {
            value.problem("should be a path below the workspace, without .. and not beginning with /");
        }
    }

    static Optional<String> inside(Value value) {
        Optional<String> path = value.text();
        path.ifPresent(text -> insideOnly(value, text));
        return path;
    }

    /** Patterns of paths that stay within the workspace; one alone stands for a list of it. */
    static List<String> patterns(Value value) {
        return value.isText() ? inside(value).stream().toList()
                : value.items().stream().flatMap(item -> inside(item).stream()).toList();
    }

    static List<String> names(Value value, String what) {
        return value.items().stream().flatMap(item -> item.text(NAME, what + ": " + NAME_WORDS).stream()).toList();
    }

    static List<String> secretNames(Value value) {
        return value.items().stream().flatMap(item -> item.text(VARIABLE, VARIABLE_WORDS).stream()).toList();
    }

    /** A condition that means something over these facts. */
    static Optional<String> condition(Value value, Condition condition) {
        Optional<String> text = value.text();
        text.flatMap(condition::reasonAgainst).ifPresent(value::problem);
        return text;
    }

    /** The placeholders in a text. */
    public static List<String> placeholders(String text) {
        Matcher matcher = PLACEHOLDER.matcher(text);
        return matcher.results().map(found -> found.group(1)).toList();
    }

    static String withoutPlaceholders(String text, String instead) {
        return PLACEHOLDER.matcher(text).replaceAll(instead);
    }

    static void onlyPlaceholders(Value value, String text, Collection<String> known) {
        placeholders(text).stream().filter(name -> !known.contains(name)).forEach(name -> value
                .problem("has the unknown placeholder {" + name + "}" + NearestName.hint(name, new TreeSet<>(known))));
    }
}
