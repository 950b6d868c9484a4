package dev.paseo.service.evidence;

import java.io.InputStream;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/** Reads a report that is one JSON object as a stream, field by field. */
final class JsonReport {

    private JsonReport() {}

    /** What is done with a field: its whole value is read, or passed over. */
    interface Field {
        void read(String name, JsonToken token, JsonParser parser);
    }

    /** @param form what else it is not, where it is no object */
    static void read(JsonMapper json, InputStream in, String form, Field field) {
        try (JsonParser parser = json.createParser(in)) {
            if (parser.nextToken() != JsonToken.START_OBJECT) {
                throw new UnreadableReport("is not " + form);
            }
            fields(parser, field);
            if (parser.currentToken() != JsonToken.END_OBJECT) {
                throw new UnreadableReport("ends in the middle");
            }
        } catch (JacksonException broken) {
            throw new UnreadableReport(Optional.ofNullable(broken.getLocation())
                    .map(at -> at.getLineNr() + ":" + at.getColumnNr() + " ").orElse("")
                    + "not valid JSON");
        }
    }

    /** Those of the object at which the parser is. */
    static void fields(JsonParser parser, Field field) {
        while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
            String name = parser.currentName();
            field.read(name, parser.nextToken(), parser);
        }
    }
}
