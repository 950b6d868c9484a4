package dev.paseo.cli.output;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Lets nothing through that steers a terminal (ECMA-48), but line ends, tabs and the client's own colours: names,
 * comments and logs are other people's. What is left out shows as {@code ·}.
 */
public final class Plain extends Writer {

    private static final char SHOWN = '·';
    /** The colours of {@link Ink}, or one character that steers. */
    private static final Pattern STEERS = Pattern.compile("\u001b\\[(?:0|1|2|31|32|33|35)m|[\\p{Cc}&&[^\n\t]]");
    private static final int SHORTEST_COLOUR = 4;

    private final Writer out;

    private Plain(Writer out) {
        this.out = out;
    }

    public static PrintWriter writer(Writer out) {
        return new PrintWriter(new Plain(out));
    }

    @Override
    public void write(String text, int offset, int length) throws IOException {
        out.write(plain(text.substring(offset, offset + length)));
    }

    @Override
    public void write(char[] signs, int offset, int length) throws IOException {
        out.write(plain(new String(signs, offset, length)));
    }

    static String plain(String text) {
        return STEERS.matcher(text).replaceAll(found -> found.group().length() >= SHORTEST_COLOUR
                ? Matcher.quoteReplacement(found.group()) : String.valueOf(SHOWN));
    }

    @Override
    public void flush() throws IOException {
        out.flush();
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
