package dev.paseo.core.audit;

import dev.paseo.core.signature.Ed25519;
import dev.paseo.core.signature.KeyRing;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.HexFormat;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The lines of a trail that was taken away, each JSON as RFC 8785 has it: a beginning, the renewals of its key, then
 * entries in their order with signed heads between them, each behind the last entry that it covers, and an end.
 */
public sealed interface Exported {

    /** What the first line begins with. */
    String FORMAT = "paseo audit export 1";

    /**
     * The first line.
     *
     * @param from how many entries stand before the first one here
     * @param left the roots of the complete subtrees of those, the largest first
     * @param key  the first public key of the service, as {@link Ed25519#key} reads it
     */
    record Start(long from, List<byte[]> left, String key) implements Exported {
        @Override
        public String line() {
            return "{\"audit\":\"" + FORMAT + "\",\"from\":" + from + ",\"key\":\"" + key + "\",\"left\":["
                    + left.stream().map(hash -> "\"" + HexFormat.of().formatHex(hash) + "\"")
                            .collect(Collectors.joining(","))
                    + "]}";
        }
    }

    /** A key that took the place of the one before; the same may stand there again. */
    record Renewed(KeyRing.Renewal renewal) implements Exported {
        @Override
        public String line() {
            return "{\"renewal\":{\"at\":\"" + renewal.at() + "\",\"key\":\"" + renewal.key()
                    + "\",\"signature\":\"" + renewal.signature() + "\"}}";
        }
    }

    /**
     * An entry.
     *
     * @param body as it was written, JSON as RFC 8785 has it
     * @param leaf its leaf hash, in lower-case hexadecimal
     */
    record Entry(String body, String leaf, long position) implements Exported {
        @Override
        public String line() {
            return "{\"entry\":" + body + ",\"leaf\":\"" + leaf + "\",\"position\":" + position + "}";
        }
    }

    /** A head that covers all entries before it. */
    record Head(TreeHead head, String signature) implements Exported {
        @Override
        public String line() {
            return "{\"head\":{\"at\":\"" + head.at() + "\",\"root\":\"" + head.root() + "\",\"signature\":\""
                    + signature + "\",\"size\":" + head.size() + "}}";
        }
    }

    /** The last line: how many entries the tree has here. */
    record End(long size) implements Exported {
        @Override
        public String line() {
            return "{\"end\":" + size + "}";
        }
    }

    /** As it is written, without the line's end. */
    String line();

    Pattern START = Pattern
            .compile("\\{\"audit\":\"" + FORMAT + "\",\"from\":([0-9]{1,18}),\"key\":\"([A-Za-z0-9+/=]+)\","
                    + "\"left\":\\[((?:\"[0-9a-f]{64}\",?)*)]}");
    Pattern TAIL = Pattern.compile("\"([0-9a-f]{64})\",\"position\":([0-9]{1,18})}");
    Pattern HEAD = Pattern
            .compile("\\{\"head\":\\{\"at\":\"([^\"]{1,40})\",\"root\":\"([0-9a-f]{64})\",\"signature\":\""
                    + "([A-Za-z0-9+/=]{1,120})\",\"size\":([0-9]{1,18})}}");
    Pattern RENEWED = Pattern
            .compile("\\{\"renewal\":\\{\"at\":\"([^\"]{1,40})\",\"key\":\"([A-Za-z0-9+/=]{1,120})\","
                    + "\"signature\":\"([A-Za-z0-9+/=]{1,120})\"}}");
    Pattern END = Pattern.compile("\\{\"end\":([0-9]{1,18})}");
    String ENTRY = "{\"entry\":";
    String LEAF = ",\"leaf\":";

    /** What a line says; empty where it is in none of these forms. */
    static Optional<Exported> read(String line) {
        if (line.startsWith(ENTRY)) {
            int at = line.lastIndexOf(LEAF);
            Matcher tail = TAIL.matcher(line);
            return at < 0 || !tail.region(at + LEAF.length(), line.length()).matches() ? Optional.empty()
                    : Optional.of(new Entry(line.substring(ENTRY.length(), at), tail.group(1),
                            Long.parseLong(tail.group(2))));
        }
        Matcher head = HEAD.matcher(line);
        if (head.matches()) {
            return instant(head.group(1)).map(at -> new Head(
                    new TreeHead(Long.parseLong(head.group(4)), head.group(2), at), head.group(3)));
        }
        Matcher end = END.matcher(line);
        if (end.matches()) {
            return Optional.of(new End(Long.parseLong(end.group(1))));
        }
        Matcher renewed = RENEWED.matcher(line);
        if (renewed.matches()) {
            return instant(renewed.group(1))
                    .map(at -> new Renewed(new KeyRing.Renewal(renewed.group(2), at, renewed.group(3))));
        }
        Matcher start = START.matcher(line);
        return start.matches() ? Optional.of(new Start(Long.parseLong(start.group(1)),
                Pattern.compile("[0-9a-f]{64}").matcher(start.group(3)).results()
                        .map(hash -> HexFormat.of().parseHex(hash.group())).toList(),
                start.group(2))) : Optional.empty();
    }

    private static Optional<Instant> instant(String text) {
        try {
            return Optional.of(Instant.parse(text));
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }
}
