package dev.paseo.core.find;

import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What somebody may have meant by a text, in the ways in which things are named: {@code daylight-api}, {@code
 * daylight-api 1.4.7}, {@code daylight-api#41}, {@code deployment 1042}, {@code c0ffee12}. Pure.
 *
 * @param name       the beginning, or a part, of a name
 * @param component  the beginning of a component's name, where something of it is meant
 * @param version    the beginning of a version's number
 * @param run        the number of a run of the component
 * @param deployment its number
 * @param digest     the beginning of a commit's id or of a SHA-256
 */
public record Sought(Optional<String> name, Optional<String> component, Optional<String> version, OptionalLong run,
        OptionalLong deployment, Optional<String> digest) {

    /** Longer texts name nothing. */
    public static final int LONGEST = 200;

    /** Of what begins with fewer characters there is too much. */
    private static final int SHORTEST_DIGEST = 4;
    private static final Pattern RUN = Pattern.compile("([a-z0-9-]+) ?#([0-9]{1,18})");
    private static final Pattern DEPLOYMENT = Pattern.compile("deployment #?([0-9]{1,18})");
    private static final Pattern OF_COMPONENT = Pattern.compile("([a-z0-9-]+) (\\S+)");
    private static final Pattern NUMBER = Pattern.compile("[0-9]{1,18}");
    private static final Pattern DIGEST = Pattern.compile("(?:sha256:)?([0-9a-f]{" + SHORTEST_DIGEST + ",64})");

    private static final Sought NOTHING = new Sought(Optional.empty(), Optional.empty(), Optional.empty(),
            OptionalLong.empty(), OptionalLong.empty(), Optional.empty());

    /** Reads a text; capitals and spaces around do not count. */
    public static Sought of(String text) {
        String said = text.strip().replaceAll("\\s+", " ");
        String small = said.toLowerCase(Locale.ROOT);
        if (small.isEmpty() || small.length() > LONGEST) {
            return NOTHING;
        }
        Matcher deployment = DEPLOYMENT.matcher(small);
        if (deployment.matches()) {
            return new Sought(Optional.empty(), Optional.empty(), Optional.empty(), OptionalLong.empty(),
                    OptionalLong.of(Long.parseLong(deployment.group(1))), Optional.empty());
        }
        Matcher run = RUN.matcher(small);
        if (run.matches()) {
            return new Sought(Optional.empty(), Optional.of(run.group(1)), Optional.empty(),
                    OptionalLong.of(Long.parseLong(run.group(2))), OptionalLong.empty(), Optional.empty());
        }
        Matcher of = OF_COMPONENT.matcher(small);
        if (of.matches()) {
            return new Sought(Optional.empty(), Optional.of(of.group(1)),
                    Optional.of(said.substring(of.start(2), of.end(2))), OptionalLong.empty(), OptionalLong.empty(),
                    Optional.empty());
        }
        Matcher digest = DIGEST.matcher(small);
        return new Sought(Optional.of(small), Optional.empty(), Optional.of(said), OptionalLong.empty(),
                NUMBER.matcher(small).matches() ? OptionalLong.of(Long.parseLong(small)) : OptionalLong.empty(),
                digest.matches() ? Optional.of(digest.group(1)) : Optional.empty());
    }
}
