package dev.paseo.agent.log;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;

/**
 * Hides secrets in log lines: as they are, line by line, in base64 (at each alignment, and twice), base32, hexadecimal
 * with and without separators, percent encoding, and as they stand in JSON, HTML and XML; also where spaces or line
 * ends tear them apart. What cannot be known stays: reversed, or letter by letter with other signs between.
 */
public final class Masker {

    private static final String DOTS = "••••••";
    private static final int SHORTEST = 6;
    private static final int PART = 1 << 20;
    /** A beginning of a secret at the end of a line that is worth waiting for the next line. */
    private static final int SHORTEST_TORN = 3;

    private static final Pattern PERCENT = Pattern.compile("%[0-9A-F]{2}");

    private final List<String> hidden;
    /** The same without spaces and line ends, as torn ones are looked for. */
    private final List<String> squeezed;

    private final String mask;

    public Masker(Collection<String> secrets) {
        this(secrets, text -> text);
    }

    /** For bytes that are read as ISO 8859-1, one character for each, so that all others stay as they are. */
    public static Masker ofBytes(Collection<String> secrets) {
        return new Masker(secrets,
                text -> new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1));
    }

    private Masker(Collection<String> secrets, UnaryOperator<String> view) {
        this.mask = view.apply(DOTS);
        Set<String> forms = new LinkedHashSet<>();
        for (String secret : secrets) {
            secret.lines().filter(line -> line.length() >= SHORTEST).forEach(line -> addForms(line, forms));
            addForms(secret, forms);
        }
        this.hidden = forms.stream().map(view).filter(form -> form.length() >= SHORTEST)
                .sorted(Comparator.comparingInt(String::length).reversed()).toList();
        this.squeezed = hidden.stream().map(form -> form.replaceAll("\\s", ""))
                .filter(form -> form.length() >= SHORTEST).distinct().toList();
    }

    public boolean isEmpty() {
        return hidden.isEmpty();
    }

    private static void addForms(String secret, Set<String> forms) {
        byte[] bytes = secret.getBytes(StandardCharsets.UTF_8);
        forms.add(secret);
        for (String between : List.of("", ":", "-", " ", "\\x", ", 0x")) {
            forms.add(HexFormat.ofDelimiter(between).formatHex(bytes));
            forms.add(HexFormat.ofDelimiter(between).withUpperCase().formatHex(bytes));
        }
        String percent = URLEncoder.encode(secret, StandardCharsets.UTF_8);
        for (String encoded : List.of(percent, percent.replace("+", "%20"),
                "%" + HexFormat.ofDelimiter("%").withUpperCase().formatHex(bytes))) {
            forms.add(encoded);
            forms.add(PERCENT.matcher(encoded).replaceAll(found -> found.group().toLowerCase(Locale.ROOT)));
        }
        forms.add(escaped(secret, Map.of('"', "\\\"", '\\', "\\\\", '\n', "\\n", '\t', "\\t", '\r', "\\r")));
        forms.add(escaped(secret, Map.of('"', "\\\"", '\\', "\\\\", '/', "\\/", '\n', "\\n", '\t', "\\t")));
        forms.add(escaped(secret, Map.of('&', "&amp;", '<', "&lt;", '>', "&gt;")));
        forms.add(escaped(secret, Map.of('&', "&amp;", '<', "&lt;", '>', "&gt;", '"', "&quot;", '\'', "&#39;")));
        forms.add(escaped(secret, Map.of('&', "&amp;", '<', "&lt;", '>', "&gt;", '"', "&#34;", '\'', "&apos;")));
        for (int offset = 0; offset < 5; offset++) {
            forms.add(base32At(bytes, offset));
        }
        for (int offset = 0; offset < 3; offset++) {
            for (String once : base64At(bytes, offset)) {
                forms.add(once);
                for (int again = 0; again < 3; again++) {
                    forms.addAll(base64At(once.getBytes(StandardCharsets.UTF_8), again));
                }
            }
        }
    }

    private static String escaped(String text, Map<Character, String> escapes) {
        StringBuilder escaped = new StringBuilder();
        for (char sign : text.toCharArray()) {
            escaped.append(escapes.getOrDefault(sign, String.valueOf(sign)));
        }
        return escaped.toString();
    }

    /** The part of a base32 text (RFC 4648) that is the same whatever stands before and after. */
    private static String base32At(byte[] bytes, int offset) {
        StringBuilder text = new StringBuilder();
        int from = (offset * 8 + 4) / 5 * 5 - offset * 8;
        for (int bit = from; bit + 5 <= bytes.length * 8; bit += 5) {
            int value = 0;
            for (int at = bit; at < bit + 5; at++) {
                value = value << 1 | bytes[at / 8] >> 7 - at % 8 & 1;
            }
            text.append("ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".charAt(value));
        }
        return text.toString();
    }

    /** The part of a base64 text that is the same whatever stands before and after, at each of the three alignments. */
    private static List<String> base64At(byte[] bytes, int offset) {
        byte[] shifted = new byte[offset + bytes.length];
        System.arraycopy(bytes, 0, shifted, offset, bytes.length);
        int from = offset == 0 ? 0 : offset == 1 ? 2 : 3;
        int to = shifted.length * 8 / 6;
        List<String> forms = new ArrayList<>();
        if (to > from) {
            forms.add(Base64.getEncoder().encodeToString(shifted).substring(from, to));
            forms.add(Base64.getUrlEncoder().encodeToString(shifted).substring(from, to));
        }
        return forms;
    }

    public String mask(String line) {
        String masked = line;
        for (String form : hidden) {
            masked = masked.replace(form, mask);
        }
        return masked;
    }

    /**
     * A file as it may be shown: of the copy every byte is the same that is of no secret. In parts, so that memory
     * stays as it is.
     */
    public void copy(Path from, Path to) throws IOException {
        try (InputStream in = Files.newInputStream(from);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(to))) {
            String rest = "";
            for (byte[] part = in.readNBytes(PART); part.length > 0; part = in.readNBytes(PART)) {
                String text = rest + new String(part, StandardCharsets.ISO_8859_1);
                int cut = text.length() <= 2 * longest() ? 0 : cutWhole(text, text.length() - longest());
                out.write(mask(text.substring(0, cut)).getBytes(StandardCharsets.ISO_8859_1));
                rest = text.substring(cut);
            }
            out.write(mask(rest).getBytes(StandardCharsets.ISO_8859_1));
        }
    }

    /** As {@link #cut}, also where one secret lies across another: looked at again until none is cut in two. */
    private int cutWhole(String text, int wanted) {
        int cut = wanted;
        for (int nearer = cut(text, cut); nearer < cut; nearer = cut(text, cut)) {
            cut = nearer;
        }
        return cut;
    }

    /** Hides secrets in lines, also those that are spread over several of them. */
    List<String> mask(List<String> lines) {
        if (hidden.isEmpty()) {
            return lines;
        }
        String[] masked = mask(String.join("\n", lines)).split("\n", -1);
        return List.of(spread(String.join("\n", masked)).split("\n", -1));
    }

    /** Hides the parts of a secret that line ends have torn apart. */
    private String spread(String text) {
        Squeezed dense = new Squeezed(text);
        boolean[] hide = new boolean[text.length()];
        boolean any = false;
        for (String form : squeezed) {
            for (int at = dense.text.indexOf(form); at >= 0; at = dense.text.indexOf(form, at + form.length())) {
                for (int sign = at; sign < at + form.length(); sign++) {
                    hide[dense.positions[sign]] = true;
                }
                any = true;
            }
        }
        if (!any) {
            return text;
        }
        StringBuilder shown = new StringBuilder();
        for (int at = 0; at < text.length(); at++) {
            if (!hide[at]) {
                shown.append(text.charAt(at));
            } else if (at == 0 || !hide[at - 1]) {
                shown.append(mask);
            }
        }
        return shown.toString();
    }

    /**
     * Where whole lines may be cut off so that no secret is torn that goes on in the lines to come; the length where
     * nothing is in the way.
     */
    int settled(String text) {
        if (hidden.isEmpty()) {
            return text.length();
        }
        Squeezed dense = new Squeezed(text.substring(Math.max(0, text.length() - 2 * longest())));
        int from = text.length() - (dense.whole);
        int settled = text.length();
        for (String form : squeezed) {
            for (int length = Math.min(form.length() - 1, dense.text.length()); length >= SHORTEST_TORN; length--) {
                if (dense.text.endsWith(form.substring(0, length))) {
                    int begins = from + dense.positions[dense.text.length() - length];
                    settled = Math.min(settled, text.lastIndexOf('\n', begins) + 1);
                    break;
                }
            }
        }
        return settled;
    }

    /** A text without its spaces and line ends, and where each of its signs stood. */
    private static final class Squeezed {
        final String text;
        final int[] positions;
        final int whole;

        Squeezed(String full) {
            StringBuilder signs = new StringBuilder(full.length());
            positions = new int[full.length()];
            whole = full.length();
            for (int at = 0; at < full.length(); at++) {
                if (!Character.isWhitespace(full.charAt(at))) {
                    positions[signs.length()] = at;
                    signs.append(full.charAt(at));
                }
            }
            text = signs.toString();
        }
    }

    /** Where to cut a line that is too long, at most at {@code wanted}, so that no secret is cut in two. */
    int cut(String line, int wanted) {
        int cut = wanted;
        for (String form : hidden) {
            int at = line.indexOf(form, Math.max(0, cut - form.length() + 1));
            if (at >= 0 && at < cut && at + form.length() > cut && at > 0) {
                cut = at;
            }
        }
        return cut;
    }

    /** The longest text that is hidden. */
    int longest() {
        return hidden.isEmpty() ? 0 : hidden.getFirst().length();
    }
}
