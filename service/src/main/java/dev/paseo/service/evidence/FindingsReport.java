package dev.paseo.service.evidence;

import dev.paseo.core.evidence.FindingsSummary.Finding;
import dev.paseo.core.evidence.FindingsSummary;
import dev.paseo.core.text.Sha256;
import dev.paseo.core.text.Shortened;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectReader;
import tools.jackson.databind.json.JsonMapper;

/** Reads SARIF 2.1.0 as a stream, result by result, any number of files. */
final class FindingsReport {

    static final int MOST_RESULTS = 2000;

    private final JsonMapper json;
    private final ObjectReader one;
    private final List<Finding> results = new ArrayList<>();
    private final Map<String, Integer> seen = new HashMap<>();
    private final Map<String, Long> levels = new HashMap<>();
    private long total;

    FindingsReport(JsonMapper json) {
        this.json = json;
        this.one = json.reader().without(DeserializationFeature.FAIL_ON_TRAILING_TOKENS);
    }

    void read(InputStream in) {
        boolean[] runs = {false};
        JsonReport.read(json, in, "SARIF: a JSON object with version and runs", (name, token, parser) -> {
            if (name.equals("version") && !parser.getString().equals("2.1.0")) {
                throw new UnreadableReport("is SARIF " + Shortened.to(parser.getString(), 20) + "; 2.1.0 is read");
            }
            if (name.equals("runs") && token == JsonToken.START_ARRAY) {
                runs[0] = true;
                runs(parser);
            } else {
                parser.skipChildren();
            }
        });
        if (!runs[0]) {
            throw new UnreadableReport("is not SARIF: it has no runs");
        }
    }

    private void runs(JsonParser runs) {
        while (runs.nextToken() == JsonToken.START_OBJECT) {
            JsonReport.fields(runs, (name, token, parser) -> {
                if (token == JsonToken.START_ARRAY && name.equals("results")) {
                    while (parser.nextToken() == JsonToken.START_OBJECT) {
                        result(one.readTree(parser));
                    }
                } else {
                    parser.skipChildren();
                }
            });
        }
    }

    private void result(JsonNode result) {
        total++;
        String level = result.path("level").asString("warning");
        levels.merge(level, 1L, Long::sum);
        if (results.size() >= MOST_RESULTS) {
            return;
        }
        JsonNode place = result.path("locations").path(0).path("physicalLocation");
        String rule = Shortened.to(result.path("ruleId").asString("unnamed"), 200);
        String message = Shortened.to(result.path("message").path("text").asString(""), 500);
        String file = Shortened.to(place.path("artifactLocation").path("uri").asString(""), 300);
        int line = place.path("region").path("startLine").asInt(0);
        results.add(new Finding(rule, Shortened.to(level, 10), message, file,
                line > 0 ? Optional.of(line) : Optional.empty(), fingerprint(result, rule, file, message)));
    }

    /** The report's own fingerprint where it has one; else rule, file and message, which do not move with the lines. */
    private String fingerprint(JsonNode result, String rule, String file, String message) {
        JsonNode own = result.path("partialFingerprints");
        String text = own.isEmpty() ? rule + "\n" + file + "\n" + message : own.toString();
        int again = seen.merge(text, 1, Integer::sum);
        return Sha256.hex(text + "\n" + again).substring(0, 32);
    }

    FindingsSummary summary() {
        return new FindingsSummary(total, levels.getOrDefault("error", 0L), levels.getOrDefault("warning", 0L),
                levels.getOrDefault("note", 0L), results);
    }
}
