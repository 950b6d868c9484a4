package dev.paseo.service.evidence;

import com.github.packageurl.MalformedPackageURLException;
import com.github.packageurl.PackageURL;
import dev.paseo.core.evidence.Parts;
import dev.paseo.core.evidence.Parts.Part;
import dev.paseo.core.text.Shortened;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads CycloneDX 1.2 to 1.7 in JSON as a stream, component by component, any number of files. The graph of
 * dependencies is passed over, so that cycles in it do no harm.
 */
final class PartsReport {

    static final int MOST_PARTS = 20_000;
    private static final int DEEPEST = 20;
    private static final int LONGEST_NAME = 300;
    private static final int MOST_LICENCES = 20;

    private final JsonMapper json;
    private final List<Part> parts = new ArrayList<>();

    PartsReport(JsonMapper json) {
        this.json = json;
    }

    void read(InputStream in) {
        boolean[] named = {false};
        JsonReport.read(json, in, "CycloneDX in JSON: an object with bomFormat and components",
                (name, token, parser) -> {
                    if (name.equals("bomFormat")) {
                        named[0] = "CycloneDX".equals(parser.getString());
                    } else if (name.equals("specVersion") && !parser.getString().matches("1\\.[2-7]")) {
                        throw new UnreadableReport("is CycloneDX " + Shortened.to(parser.getString(), 20)
                                + "; 1.2 to 1.7 are read");
                    }
                    if (name.equals("components") && token == JsonToken.START_ARRAY) {
                        components(parser, 1);
                    } else {
                        parser.skipChildren();
                    }
                });
        if (!named[0]) {
            throw new UnreadableReport("is not CycloneDX: bomFormat does not say so");
        }
    }

    private void components(JsonParser parser, int depth) {
        if (depth > DEEPEST) {
            throw new UnreadableReport("has components within components, more than " + DEEPEST + " deep");
        }
        while (parser.nextToken() == JsonToken.START_OBJECT) {
            component(parser, depth);
        }
    }

    private void component(JsonParser parser, int depth) {
        String name = "";
        String group = "";
        String version = "";
        String url = "";
        String licence = "";
        while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
            String field = parser.currentName();
            JsonToken token = parser.nextToken();
            if (field.equals("components") && token == JsonToken.START_ARRAY) {
                components(parser, depth + 1);
            } else if (field.equals("licenses") && token == JsonToken.START_ARRAY) {
                licence = licences(parser);
            } else if (token == JsonToken.VALUE_STRING) {
                switch (field) {
                    case "name" -> name = parser.getString();
                    case "group" -> group = parser.getString();
                    case "version" -> version = parser.getString();
                    case "purl" -> url = parser.getString();
                    default -> {
                        // What else is told of it is not kept.
                    }
                }
            } else {
                parser.skipChildren();
            }
        }
        String own = group.isEmpty() ? name : group + "/" + name;
        String shown = url.isEmpty() ? own : bare(url);
        if (!shown.isBlank() && parts.size() < MOST_PARTS) {
            parts.add(new Part(Shortened.to(shown, LONGEST_NAME), Shortened.to(version, 120), licence));
        } else if (parts.size() >= MOST_PARTS) {
            throw new UnreadableReport("has more than " + MOST_PARTS + " components");
        }
    }

    /** Without version, qualifiers and subpath, in canonical form. */
    static String bare(String url) {
        try {
            PackageURL whole = new PackageURL(url);
            return new PackageURL(whole.getType(), whole.getNamespace(), whole.getName(), null, null, null)
                    .canonicalize();
        } catch (MalformedPackageURLException wrong) {
            throw new UnreadableReport("has the package URL “" + Shortened.to(url, 100) + "”, which is none: "
                    + Shortened.to(String.valueOf(wrong.getMessage()), 100));
        }
    }

    /** Identifiers, names and expressions, token by token: the texts of licences among them may be long. */
    private static String licences(JsonParser parser) {
        Set<String> all = new LinkedHashSet<>();
        for (int depth = 1; depth > 0;) {
            JsonToken token = parser.nextToken();
            if (token == null) {
                throw new UnreadableReport("ends in the middle");
            }
            depth += token.isStructStart() ? 1 : token.isStructEnd() ? -1 : 0;
            String field = parser.currentName();
            boolean told = depth == 2 ? "expression".equals(field)
                    : depth == 3 && ("id".equals(field) || "name".equals(field));
            if (told && token == JsonToken.VALUE_STRING && all.size() < MOST_LICENCES) {
                all.add(Shortened.to(parser.getString(), 300));
            }
        }
        return Shortened.to(String.join(", ", all), 300);
    }

    Parts parts() {
        return new Parts(parts);
    }
}
