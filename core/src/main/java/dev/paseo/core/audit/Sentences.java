package dev.paseo.core.audit;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What entries of the trail say, as sentences. What is not known here is said in its own words. */
public final class Sentences {

    private static final Pattern OPTIONAL = Pattern.compile("\\[([^\\]]*)]");
    private static final Pattern NAME = Pattern.compile("\\{([^}]+)}");
    private static final Map<String, String> KNOWN = read();

    private Sentences() {}

    private static Map<String, String> read() {
        Map<String, String> known = new TreeMap<>();
        try (InputStream in = Objects.requireNonNull(Sentences.class.getResourceAsStream("sentences.txt"))) {
            new String(in.readAllBytes(), StandardCharsets.UTF_8).lines().filter(line -> !line.startsWith("#"))
                    .map(line -> line.split(" = ", 2)).forEach(parts -> known.put(parts[0], parts[1]));
        } catch (IOException unread) {
            throw new UncheckedIOException(unread);
        }
        return Collections.unmodifiableMap(known);
    }

    /** The actions that have a sentence. */
    public static Set<String> actions() {
        return KNOWN.keySet();
    }

    /**
     * What was done, by whom, to what and where; why is not in it.
     *
     * @param who     an account or an agent; {@code paseo}: the service by itself
     * @param where   an environment; empty: none
     * @param details further texts by their names; empty ones are not there
     */
    public static String of(String who, String what, String subject, String where, Map<String, String> details) {
        Function<String, Optional<String>> values = name -> Optional.ofNullable(switch (name) {
            case "who" -> who.equals("paseo") ? "the service" : who;
            case "it" -> subject;
            case "where" -> where;
            default -> details.get(name);
        }).filter(value -> !value.isEmpty());
        String template = KNOWN.getOrDefault(what, "{who}: " + what + ", {it}[, in {where}]");
        String whole = replaced(OPTIONAL, template, match -> NAME.matcher(match.group(1)).results()
                .allMatch(name -> values.apply(name.group(1)).isPresent()) ? match.group(1) : "");
        return replaced(NAME, whole, match -> values.apply(match.group(1)).orElse("…"));
    }

    private static String replaced(Pattern pattern, String text, Function<MatchResult, String> by) {
        return pattern.matcher(text).replaceAll(match -> Matcher.quoteReplacement(by.apply(match)));
    }
}
