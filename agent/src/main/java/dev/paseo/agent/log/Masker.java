package dev.paseo.agent.log;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Hides secrets in log lines: as they are, line by line, and in base64, hexadecimal and percent encoding. */
public final class Masker {

    private static final String MASK = "••••••";
    private static final int SHORTEST = 6;
    /** A beginning of a secret at the end of a line that is worth waiting for the next line. */
    private static final int SHORTEST_TORN = 3;

    private final List<String> hidden;

    public Masker(Collection<String> secrets) {
        Set<String> forms = new LinkedHashSet<>();
        for (String secret : secrets) {
            secret.lines().filter(line -> line.length() >= SHORTEST).forEach(line -> addForms(line, forms));
            addForms(secret, forms);
        }
        this.hidden = forms.stream().filter(form -> form.length() >= SHORTEST).sorted(Comparator.comparingInt(String::length).reversed()).toList();
    }

    private static void addForms(String secret, Set<String> forms) {
        byte[] bytes = secret.getBytes(StandardCharsets.UTF_8);
        forms.add(secret);
        forms.add(HexFormat.of().formatHex(bytes));
        forms.add(HexFormat.of().withUpperCase().formatHex(bytes));
        forms.add(URLEncoder.encode(secret, StandardCharsets.UTF_8));
        forms.add(URLEncoder.encode(secret, StandardCharsets.UTF_8).replace("+", "%20"));
        for (int offset = 0; offset < 3; offset++) {
            forms.addAll(base64At(bytes, offset));
        }
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
            masked = masked.replace(form, MASK);
        }
        return masked;
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
        Squeezed squeezed = new Squeezed(text);
        boolean[] hide = new boolean[text.length()];
        boolean any = false;
        for (String form : hidden) {
            for (int at = squeezed.text.indexOf(form); at >= 0; at = squeezed.text.indexOf(form, at + form.length())) {
                for (int sign = at; sign < at + form.length(); sign++) {
                    hide[squeezed.positions[sign]] = true;
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
                shown.append(MASK);
            }
        }
        return shown.toString();
    }

    /** Where whole lines may be cut off so that no secret is torn that goes on in the lines to come; the length where nothing is in the way. */
    int settled(String text) {
        if (hidden.isEmpty()) {
            return text.length();
        }
        Squeezed squeezed = new Squeezed(text.substring(Math.max(0, text.length() - 2 * longest())));
        int from = text.length() - (squeezed.whole);
        int settled = text.length();
        for (String form : hidden) {
            for (int length = Math.min(form.length() - 1, squeezed.text.length()); length >= SHORTEST_TORN; length--) {
                if (squeezed.text.endsWith(form.substring(0, length))) {
                    int begins = from + squeezed.positions[squeezed.text.length() - length];
                    settled = Math.min(settled, text.lastIndexOf('\n', begins) + 1);
                    break;
                }
            }
        }
        return settled;
    }

    /** A text without its line ends, and where each of its signs stood. */
    private static final class Squeezed {
        final String text;
        final int[] positions;
        final int whole;

        Squeezed(String full) {
            StringBuilder signs = new StringBuilder(full.length());
            positions = new int[full.length()];
            whole = full.length();
            for (int at = 0; at < full.length(); at++) {
                if (full.charAt(at) != '\n' && full.charAt(at) != '\r') {
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
