package dev.paseo.core.history;

import java.time.DateTimeException;
import java.time.Instant;
import java.util.Comparator;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where something that happened stands among all that did: no two stand at one mark. The newest come first.
 *
 * @param id in its source
 */
public record Mark(Instant at, Source source, long id) implements Comparable<Mark> {

    private static final Pattern FORM = Pattern.compile("([0-9T:.Z-]{20,30})~([0-9])~([0-9]{1,18})");
    private static final Comparator<Mark> ORDER = Comparator.comparing(Mark::at).reversed()
            .thenComparing(Mark::source).thenComparing(Comparator.comparing(Mark::id).reversed());

    /** What of a source stands behind a mark: before this moment, or at it with a smaller number. */
    public record Bound(Instant at, long id) {}

    @Override
    public int compareTo(Mark other) {
        return ORDER.compare(this, other);
    }

    /** A cursor; {@link #read} reads it. */
    public String cursor() {
        return at + "~" + source.ordinal() + "~" + id;
    }

    /** What a cursor says; empty where it is none. */
    public static Optional<Mark> read(String cursor) {
        Matcher form = FORM.matcher(cursor);
        if (!form.matches() || Integer.parseInt(form.group(2)) >= Source.values().length) {
            return Optional.empty();
        }
        try {
            return Optional.of(new Mark(Instant.parse(form.group(1)),
                    Source.values()[Integer.parseInt(form.group(2))], Long.parseLong(form.group(3))));
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }

    /** What of a source stands behind this. */
    public Bound behind(Source of) {
        int order = of.compareTo(source);
        return new Bound(at, order > 0 ? Long.MAX_VALUE : order == 0 ? id : 0);
    }
}
