package dev.paseo.service.evidence;

import java.io.InputStream;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/** CycloneDX in JSON, component by component. */
final class PartsInJson {

    private final JsonMapper json;
    private final PartsReport report;

    PartsInJson(JsonMapper json, PartsReport report) {
        this.json = json;
        this.report = report;
    }

    void read(InputStream in) {
        boolean[] named = {false};
        JsonReport.read(json, in, "CycloneDX in JSON: an object with bomFormat and components",
                (name, token, parser) -> {
                    if (name.equals("bomFormat")) {
                        named[0] = "CycloneDX".equals(parser.getString());
                    } else if (name.equals("specVersion")) {
                        PartsReport.requireKnown(parser.getString());
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
        PartsReport.requireFlat(depth);
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
        report.add(group, name, version, url, licence);
    }

    /** Identifiers, names and expressions, token by token: the texts of licences among them may be long. */
    private static String licences(JsonParser parser) {
        PartsReport.Licences all = new PartsReport.Licences();
        for (int depth = 1; depth > 0;) {
            JsonToken token = parser.nextToken();
            if (token == null) {
                throw new UnreadableReport("ends in the middle");
            }
            depth += token.isStructStart() ? 1 : token.isStructEnd() ? -1 : 0;
            String field = parser.currentName();
            boolean told = depth == 2 ? "expression".equals(field)
                    : depth == 3 && ("id".equals(field) || "name".equals(field));
            if (told && token == JsonToken.VALUE_STRING) {
                all.add(parser.getString());
            }
        }
        return all.words();
    }
}
