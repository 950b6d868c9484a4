package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The API itself: its description, its problems, and who gets in. */
class ApiTest {

    private static Park park;
    /** Of so many paths the metrics tell. */
    private static int measured;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        measured = Integer.parseInt(park.startService().getEnvironment()
                .getRequiredProperty("management.metrics.web.server.max-uri-tags"));
        park.accounts();
    }

    @AfterAll
    static void close() {
        park.close();
    }

    /** With -Dpaseo.update=true it is written anew instead. */
    @Test
    void theDescriptionThatTheConsoleIsBuiltFromIsTheOneServed() throws Exception {
        ObjectNode served = (ObjectNode) park.as("developer").get("/api/openapi.json").good();
        served.remove("servers");
        Path file = TestDatabase.ROOT.resolve("console/openapi.json");
        if (Boolean.getBoolean("paseo.update")) {
            Files.writeString(file, Client.JSON.writerWithDefaultPrettyPrinter().writeValueAsString(served) + "\n");
        }
        assertEquals(Client.JSON.readTree(Files.readString(file)), served,
                "run this test with -Dpaseo.update=true and build the console again");
    }

    /** Whoever reads the description alone knows what each operation does, with what, and what it answers. */
    @Test
    void everyOperationIsDescribed() {
        JsonNode api = park.as("developer").get("/api/openapi.json").good();
        List<String> silent = new ArrayList<>();
        Set<String> names = new HashSet<>();
        api.path("paths").properties().forEach(path -> path.getValue().properties().forEach(operation -> {
            String name = operation.getKey() + " " + path.getKey();
            JsonNode what = operation.getValue();
            if (what.path("summary").asString("").isBlank() || what.path("tags").size() != 1
                    || what.path("tags").path(0).asString("").contains("controller")) {
                silent.add(name);
            }
            String id = what.path("operationId").asString("");
            if (!id.matches("[a-z][A-Za-z]+") || !names.add(id)) {
                silent.add(name + ": its name " + id + " is another's too, or none that lasts");
            }
            what.path("parameters").forEach(parameter -> {
                if (parameter.path("description").asString("").isBlank()) {
                    silent.add(name + ": " + parameter.path("name").asString());
                }
            });
            if (!what.path("responses").has("503")) {
                silent.add(name + ": problems");
            }
            silent.addAll(withoutExample(api, name, what));
        }));
        assertEquals(List.of(), silent);
        assertFalse(api.toString().contains("<code>"), "descriptions are Markdown");
        assertTrue(api.path("paths").size() > 100, "the paths were not found");
        assertTrue(measured > 2 * api.path("paths").size(), "some paths are left out of the metrics");
    }

    /** What is asked and answered in JSON has an example, and what is asked is of the form that is taken. */
    private static List<String> withoutExample(JsonNode api, String name, JsonNode what) {
        List<String> wrong = new ArrayList<>();
        JsonNode body = what.path("requestBody").path("content").path("application/json");
        if (!body.isMissingNode()) {
            JsonNode schema = api.path("components").path("schemas")
                    .path(body.path("schema").path("$ref").asString("").replaceAll(".*/", ""));
            JsonNode example = body.path("example");
            if (example.isMissingNode()) {
                wrong.add(name + ": no example of a request");
            }
            schema.path("required").forEach(field -> {
                if (!example.has(field.asString())) {
                    wrong.add(name + ": its example lacks " + field.asString());
                }
            });
            if (schema.has("properties")) {
                example.propertyNames().stream().filter(field -> !schema.path("properties").has(field))
                        .forEach(field -> wrong.add(name + ": there is no field " + field));
            }
        }
        if (name.startsWith("get ") && what.path("responses").path("200").path("content").toString().contains("$ref")
                && !what.path("responses").path("200").toString().contains("\"example\"")) {
            wrong.add(name + ": no example of an answer");
        }
        return wrong;
    }

    @Test
    void problemsHaveAStableTypeAndSayWhat() {
        Client.Answer nowhere = park.as("developer").get("/api/v1/whereabouts?component=daylight-apo");
        assertEquals(404, nowhere.status());
        assertTrue(nowhere.detail().startsWith("There is no component daylight-apo"), nowhere.detail());
        JsonNode problem = park.as("developer").get("/api/v1/runs/daylight-apo/1").body();
        assertEquals("/problems/not-found", problem.path("type").asString());
        assertEquals(404, problem.path("status").asInt());
        assertTrue(problem.path("detail").asString().startsWith("There is no component daylight-apo"));
    }

    private static HttpResponse<String> session(String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder().header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(
                        Client.JSON.writeValueAsString(Map.of("name", "developer", "password", Park.PASSWORD))));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return new Client(park.address(), "").raw(request, "/api/v1/session");
    }

    @Test
    void aSessionNeedsTheProofThatTheRequestCameFromThePage() throws Exception {
        assertEquals(403, session().statusCode());
        HttpResponse<String> first = new Client(park.address(), "").raw(HttpRequest.newBuilder().GET(),
                "/api/v1/session");
        String proof = first.headers().firstValue("Set-Cookie").orElseThrow().replaceAll("XSRF-TOKEN=([^;]*).*", "$1");
        HttpResponse<String> good = session("Cookie", "XSRF-TOKEN=" + proof, "X-XSRF-TOKEN", proof);
        assertEquals(204, good.statusCode());
        String cookie = good.headers().allValues("Set-Cookie").stream()
                .filter(each -> each.startsWith("paseo-session=")).findFirst().orElseThrow();
        assertTrue(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), cookie);
        HttpRequest look = HttpRequest.newBuilder(URI.create(park.address() + "/api/v1/whereabouts"))
                .header("Cookie", "XSRF-TOKEN=" + proof + "; " + cookie.substring(0, cookie.indexOf(';'))).build();
        assertEquals(List.of(),
                HttpClient.newHttpClient().send(look, HttpResponse.BodyHandlers.ofString()).headers()
                        .allValues("Set-Cookie"),
                "another request's proof stays good");
    }

    @Test
    void anAddressThatIsNoPageGivesTheConsolesOwnPageToBrowsersAndAProblemToPrograms() throws Exception {
        Client nobody = new Client(park.address(), "");
        HttpResponse<String> page = nobody.raw(HttpRequest.newBuilder().GET().header("Accept", "text/html,*/*;q=0.8"),
                "/nowhere/at/all");
        assertEquals(404, page.statusCode());
        assertTrue(page.body().contains("<div id=\"root\">"), page.body());
        HttpResponse<String> problem = nobody.raw(HttpRequest.newBuilder().GET().header("Accept", "application/json"),
                "/nowhere/at/all");
        assertEquals(404, problem.statusCode());
        assertTrue(problem.headers().firstValue("Content-Type").orElse("").startsWith("application/problem+json"),
                problem.body());
    }

    /** Where a problem's type leads, and the API as a page: both are the console's, for whoever asks for them. */
    @Test
    void problemsAndTheApiHavePages() throws Exception {
        Client nobody = new Client(park.address(), "");
        HttpResponse<String> refused = nobody.raw(HttpRequest.newBuilder().GET(), "/api/v1/accounts");
        assertTrue(refused.headers().firstValue("Content-Type").orElse("").toLowerCase(Locale.ROOT)
                .startsWith("application/problem+json;charset=utf-8"), refused.headers().toString());
        String type = Client.JSON.readTree(refused.body()).path("type").asString();
        for (String page : List.of(type, "/api")) {
            HttpResponse<String> shown = nobody.raw(HttpRequest.newBuilder().GET(), page);
            assertEquals(200, shown.statusCode(), page);
            assertTrue(shown.body().contains("<div id=\"root\">"), page);
        }
        List<String> known = nobody.get("/api/v1/problems").good().valueStream()
                .map(each -> "/problems/" + each.path("name").asString()).toList();
        assertTrue(known.contains(type), known::toString);
    }

    @Test
    void nothingButSignInIsOpen() throws Exception {
        Client nobody = new Client(park.address(), "");
        for (String path : new String[]{"/api/v1/whereabouts", "/api/v1/audit", "/api/openapi.json", "/api/v1/events",
                "/actuator/prometheus"}) {
            assertEquals(401, nobody.raw(HttpRequest.newBuilder().GET(), path).statusCode(), path);
        }
        assertEquals(200, nobody.raw(HttpRequest.newBuilder().GET(), "/actuator/health").statusCode());
    }
}
