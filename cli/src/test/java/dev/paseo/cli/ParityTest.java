package dev.paseo.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Every operation of the API is reached by the client, or stands below with its reason. It is reached where a class
 * names the last word of its path and asks in its way, and all other words of the path stand in the client.
 */
class ParityTest {

    private static final String EDITOR = "the editors of the console write with it; the client takes whole files";

    private static final Map<String, String> ELSEWHERE = Map.ofEntries(
            Map.entry("GET /api/v1/views", "views are addresses of the console"),
            Map.entry("PUT /api/v1/views", "as above"), Map.entry("DELETE /api/v1/views/{id}", "as above"),
            Map.entry("GET /api/v1/notices/choices", "how one is told is chosen on the page Waiting"),
            Map.entry("PUT /api/v1/notices/choices", "as above"),
            Map.entry("DELETE /api/v1/notices/choices/{component}", "as above"),
            Map.entry("POST /api/v1/pictures", "pictures are put where they are looked at"),
            Map.entry("GET /api/v1/pictures/{digest}", "as above"),
            Map.entry("POST /api/v1/environments/{name}/facts", EDITOR),
            Map.entry("POST /api/v1/components/{name}/places/draft", EDITOR),
            Map.entry("POST /api/v1/components/{name}/pipeline/patterns", EDITOR),
            Map.entry("POST /api/v1/components/{name}/pipeline/patch", EDITOR),
            Map.entry("POST /api/v1/components/{name}/pipeline/effect", EDITOR),
            Map.entry("POST /api/v1/components/{name}/pipeline/conditions", EDITOR),
            Map.entry("GET /api/v1/pipeline-schema", "editors of other programs fetch it"),
            Map.entry("GET /api/v1/environments-schema", "as above"),
            Map.entry("POST /api/v1/drafts", "the client drafts from the folder that it stands in"),
            Map.entry("GET /api/v1/sign-in-ways", "the client signs in with a password or a token"),
            Map.entry("GET /api/v1/components/{name}/source", "paseo show says it of a component"),
            Map.entry("GET /api/v1/history/lanes", "a picture; the client lists what happened"),
            Map.entry("GET /api/v1/runs/{component}/{number}/stages/{stage}/log/search",
                    "a terminal searches what paseo log writes"),
            Map.entry("GET /api/v1/deployments/{id}/tasks/{work}/log/search", "as above"));

    private static final Map<String, List<String>> WAYS = Map.of("get", List.of(".get(", ".copy("), "post",
            List.of(".post("), "put", List.of(".put(", ".send("), "delete", List.of(".delete("));

    private static final Pattern LITERAL = Pattern.compile("\"([^\"\\\\]*)\"");

    /** The words of the literals of each class of the client, by its source. */
    private static Map<String, Set<String>> sources() throws IOException {
        Map<String, Set<String>> words = new HashMap<>();
        try (Stream<Path> files = Files.walk(Path.of("src/main/java"))) {
            for (Path file : files.filter(each -> each.toString().endsWith(".java")).toList()) {
                String source = Files.readString(file);
                Set<String> own = new HashSet<>();
                LITERAL.matcher(source).results()
                        .forEach(literal -> own.addAll(Arrays.asList(literal.group(1).split("[/?=& ]"))));
                words.put(source, own);
            }
        }
        return words;
    }

    private static List<String> operations() throws IOException {
        JsonNode api = JsonMapper.shared().readTree(Files.readString(Path.of("../console/openapi.json")));
        List<String> operations = new ArrayList<>();
        api.path("paths").properties().stream().filter(path -> path.getKey().startsWith("/api/v1/")).forEach(
                path -> path.getValue().propertyNames()
                        .forEach(method -> operations.add(method.toUpperCase(Locale.ROOT) + " "
                                + path.getKey())));
        return operations;
    }

    @Test
    void everyOperationIsReachedOrSaysWhyNot() throws IOException {
        Map<String, Set<String>> sources = sources();
        Set<String> all = new HashSet<>();
        sources.values().forEach(all::addAll);
        Set<String> lost = new TreeSet<>();
        for (String operation : operations()) {
            String method = operation.substring(0, operation.indexOf(' ')).toLowerCase(Locale.ROOT);
            List<String> words = Arrays.stream(operation.substring(operation.indexOf("/v1/") + 4).split("/"))
                    .filter(word -> !word.startsWith("{")).toList();
            boolean reached = all.containsAll(words) && sources.entrySet().stream()
                    .anyMatch(source -> source.getValue().contains(words.getLast())
                            && WAYS.get(method).stream().anyMatch(source.getKey()::contains));
            if (reached == ELSEWHERE.containsKey(operation)) {
                lost.add(operation + (reached ? " is no exception" : ""));
            }
        }
        assertEquals(Set.of(), lost);
    }

    @Test
    void noExceptionIsOfWhatIsNotThere() throws IOException {
        Set<String> gone = new TreeSet<>(ELSEWHERE.keySet());
        operations().forEach(gone::remove);
        assertEquals(Set.of(), gone);
    }
}
