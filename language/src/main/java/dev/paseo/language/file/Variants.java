package dev.paseo.language.file;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The variants of a stage, and the placeholders that stand for their values. */
public final class Variants {

    private Variants() {}

    static List<Map<String, String>> of(Map<String, List<String>> each) {
        List<Map<String, String>> variants = List.of(Map.of());
        for (Map.Entry<String, List<String>> values : each.entrySet()) {
            List<Map<String, String>> more = new ArrayList<>();
            for (Map<String, String> variant : variants) {
                for (String value : values.getValue()) {
                    Map<String, String> longer = new LinkedHashMap<>(variant);
                    longer.put(values.getKey(), value);
                    more.add(longer);
                }
            }
            variants = more;
        }
        return variants;
    }

    /** A variant in one word: its values. */
    public static String name(Map<String, String> variant) {
        return String.join(", ", variant.values());
    }

    /** Values put in for {@code {name}}; in names, with what a name cannot have left out. */
    public static String fill(String text, Map<String, String> variant, boolean inName) {
        String filled = text;
        for (Map.Entry<String, String> value : variant.entrySet()) {
            filled = filled.replace("{" + value.getKey() + "}",
                    inName ? slug(value.getValue()) : value.getValue().replace('/', '-'));
        }
        return filled;
    }

    private static String slug(String value) {
        return value.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
    }
}
