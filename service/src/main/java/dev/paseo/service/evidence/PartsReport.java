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
import java.util.Optional;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectReader;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads CycloneDX 1.2 to 1.7 in JSON as a stream, component by component, any number of files. The graph of
 * dependencies is passed over, so that cycles in it do no harm.
 */
final class PartsReport {

    static final int MOST_PARTS = 20_000;
    private static final int DEEPEST = 20;
    private static final int LONGEST_NAME = 300;

    private final JsonMapper json;
    private final ObjectReader one;
    private final List<Part> parts = new ArrayList<>();

    PartsReport(JsonMapper json) {
        this.json = json;
        this.one = json.reader().without(DeserializationFeature.FAIL_ON_TRAILING_TOKENS);
    }

    void read(InputStream in) {
        try (JsonParser parser = json.createParser(in)) {
            if (parser.nextToken() != JsonToken.START_OBJECT) {
                throw new UnreadableReport("is not CycloneDX in JSON: an object with bomFormat and components");
            }
            boolean named = false;
            while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
                String name = parser.currentName();
                JsonToken token = parser.nextToken();
                if (name.equals("bomFormat")) {
                    named = "CycloneDX".equals(parser.getString());
                } else if (name.equals("specVersion") && !parser.getString().matches("1\\.[2-7]")) {
                    throw new UnreadableReport("is CycloneDX " + Shortened.to(parser.getString(), 20)
                            + "; 1.2 to 1.7 are read");
                }
                if (name.equals("components") && token == JsonToken.START_ARRAY) {
                    components(parser, 1);
                } else {
                    parser.skipChildren();
                }
            }
            if (!named) {
                throw new UnreadableReport("is not CycloneDX: bomFormat does not say so");
            }
            if (parser.currentToken() != JsonToken.END_OBJECT) {
                throw new UnreadableReport("ends in the middle");
            }
        } catch (JacksonException broken) {
            throw new UnreadableReport(Optional.ofNullable(broken.getLocation())
                    .map(at -> at.getLineNr() + ":" + at.getColumnNr() + " ").orElse("")
                    + "not valid JSON");
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
                licence = licences(one.readTree(parser));
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

    private static String licences(JsonNode licences) {
        Set<String> all = new LinkedHashSet<>();
        licences.forEach(each -> {
            String said = each.path("expression").asString(each.path("license").path("id")
                    .asString(each.path("license").path("name").asString("")));
            if (!said.isBlank()) {
                all.add(said);
            }
        });
        return Shortened.to(String.join(", ", all), 300);
    }

    Parts parts() {
        return new Parts(parts);
    }
}
