package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The table of refusals, {@code refusals.txt}, is what the service says: each request once, each text whole. */
class RefusalsTest {

    private static final Path TABLE = TestDatabase.ROOT.resolve("e2e/src/test/resources/refusals.txt");
    private static final Pattern REQUEST = Pattern
            .compile("([a-z0-9-]+) (GET|POST|PUT|DELETE) (/\\S*)((?: \\[[^]]+: [^]]*])*)(?: (.*))?");
    private static final Pattern HEADER = Pattern.compile("\\[([^]]+?): ([^]]*)]");
    private static final Pattern LONG = Pattern.compile("X\\{(\\d+)}");

    private final List<String> played = new ArrayList<>();
    private final Set<String> undeclared = new TreeSet<>();
    private JsonNode described;
    /** The number of what was made last. */
    private String last = "0";
    /** The commit that the main branch of daylight-api is at. */
    private String head = "";

    @Test
    void eachIsAnsweredAsTheTableSays() throws Exception {
        List<String> table = Files.readAllLines(TABLE);
        try (Park park = new Park()) {
            park.startService("paseo.allowed-sources=" + park.folder.resolve("repositories")
                    + ",https://127.0.0.1:1,ssh://git@127.0.0.1:1");
            park.accounts();
            for (String agent : park.agents()) {
                park.startAgent(agent);
            }
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "faulty", Map.of("paseo.yaml", "paseo: 1\nstage: []\nroutes: []\n"));
            repository.hook("update",
                    "#!/bin/sh\ncase $1 in */locked) echo 'This branch is locked' >&2; exit 1;; esac\n");
            head = repository.git("rev-parse", "main").strip();
            Files.createDirectories(park.folder.resolve("drop"));
            described = park.as("admin").get("/api/openapi.json").good().path("paths");
            for (String line : table) {
                Matcher request = REQUEST.matcher(line);
                if (request.matches()) {
                    played.add(line);
                    String answer = answer(park, request);
                    played.add("    " + answer);
                    declared(request, answer.substring(0, 3));
                } else if (!line.startsWith("    ")) {
                    played.add(line);
                }
            }
            if (Boolean.getBoolean("paseo.update")) {
                Files.write(TABLE, played);
            }
        }
        assertEquals(String.join("\n", table), String.join("\n", played));
        assertEquals(Set.of(), undeclared, "the API's description does not say that these may be answered");
    }

    /** Each refusal that was met stands in the API's description of its operation. */
    private void declared(Matcher request, String status) {
        String path = path(request.group(3)).replaceAll("\\?.*", "");
        for (Map.Entry<String, JsonNode> each : described.properties()) {
            JsonNode operation = each.getValue().path(request.group(2).toLowerCase(Locale.ROOT));
            if (path.matches(each.getKey().replaceAll("\\{[^}]*}", "[^/]+")) && !operation.isMissingNode()
                    && !status.equals("200") && !operation.path("responses").has(status)) {
                undeclared.add(request.group(2) + " " + each.getKey() + ": " + status);
            }
        }
    }

    /** Below /api/v1, unless it begins with two. */
    private static String path(String written) {
        return written.startsWith("//") ? written.substring(1) : "/api/v1" + longer(written);
    }

    private static String longer(String written) {
        return LONG.matcher(written).replaceAll(times -> "x".repeat(Integer.parseInt(times.group(1))));
    }

    private String answer(Park park, Matcher request) throws IOException {
        String body = request.group(5) == null ? ""
                : longer(request.group(5))
                        .replace("FOLDER", "file://" + park.folder).replace("HEAD", head)
                        .replace("ADDRESS", "http://127.0.0.1:" + park.storePort);
        Map<String, String> headers = new LinkedHashMap<>(Map.of("Content-Type", "application/json"));
        if (request.group(3).startsWith("/uploads/") && request.group(2).equals("PUT")) {
            headers.putAll(Map.of("Content-Type", "application/octet-stream", "Upload-Offset", "0"));
        }
        Matcher header = HEADER.matcher(request.group(4));
        while (header.find()) {
            headers.put(header.group(1), header.group(2));
        }
        HttpRequest.Builder asked = HttpRequest.newBuilder()
                .method(request.group(2), body.isEmpty() ? BodyPublishers.noBody() : BodyPublishers.ofString(body));
        headers.forEach(asked::header);
        String who = request.group(1);
        if (!who.equals("nobody")) {
            asked.header("Authorization", "Bearer " + park.as(who).token());
        }
        HttpResponse<String> answer = park.as("admin").raw(asked,
                path(request.group(3)).replace("LAST", last));
        if (answer.statusCode() < 300) {
            last = answer.body().startsWith("{") ? Client.JSON.readTree(answer.body()).path("id").asString(last) : last;
            return "200";
        }
        String words = words(answer, park.folder.toString());
        boolean named = request.group(3).contains("LAST") || request.group(3).equals("/deployments");
        return !named ? words : words.replaceAll("(?i)\\b(deployment|passage) " + last + "\\b", "$1 LAST");
    }

    private static String words(HttpResponse<String> answer, String folder) {
        if (!answer.body().startsWith("{")) {
            return answer.statusCode() + " - " + answer.body().strip();
        }
        JsonNode problem = Client.JSON.readTree(answer.body());
        List<String> lines = new ArrayList<>();
        problem.path("errors").forEach(each -> lines.add(field(each)));
        if (lines.isEmpty()) {
            lines.add(field(problem));
        }
        return answer.statusCode() + " " + String.join("\n", lines).replace("\n", "\n        ")
                .replace("file://" + folder, "FOLDER").replace(folder, "FOLDER")
                .replaceAll("\\d{4}-\\d\\d-\\d\\dT[0-9:.]+Z", "TIME")
                .replaceAll("\\d+ [A-Z][a-z]{2}( \\d{4})?, \\d\\d:\\d\\d( UTC)?", "TIME")
                .replaceAll("\\b[0-9a-f]{40,64}\\b", "SHA").replaceAll("\\bin \\d+ s\\b", "in SECONDS")
                .replaceAll("127\\.0\\.0\\.1:[1-9]\\d{3,}", "ADDRESS");
    }

    private static String field(JsonNode wrong) {
        String pointer = wrong.path("pointer").asString("");
        return (pointer.isEmpty() ? "-" : pointer) + " " + wrong.path("detail").asString("");
    }

    @Test
    void eachRefusalIsRaisedByTheTableOrByATestThatComparesItWhole() throws IOException {
        List<String> said = new ArrayList<>(RefusalSites.inTests());
        Files.readAllLines(TABLE).stream().filter(line -> line.startsWith("    "))
                .forEach(line -> said.add(line.strip().replaceFirst("^(\\d+ )?(/\\S*|-) ", "")));
        Set<String> missing = new TreeSet<>();
        List<RefusalSites.Said> all = RefusalSites.all();
        all.stream().filter(refusal -> !refusal.isOneOf(said))
                .forEach(refusal -> missing.add(refusal.where() + ": " + refusal.words()));
        assertEquals("", String.join("\n", missing));
        assertTrue(all.size() > 300, () -> "only " + all.size());
    }
}
