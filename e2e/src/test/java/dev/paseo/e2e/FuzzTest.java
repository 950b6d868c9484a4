package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every call of the API's own description, with bodies and parameters as nobody means them: none is answered with a
 * failure of ours, each refusal is a problem with a sentence, and the service goes on. {@code -Dpaseo.fuzz=N} sends N,
 * {@code -Dpaseo.seed} others.
 */
class FuzzTest {

    private static final int REQUESTS = Integer.getInteger("paseo.fuzz", 5_000);
    private static final int AT_ONCE = 8;
    /**
     * A stream that does not end; and what would move the clock under the other requests, or take away the means to
     * send them.
     */
    private static final Set<String> LEFT_OUT = Set.of("get /api/v1/events", "delete /api/v1/session",
            "post /api/v1/secrets/rotation");
    private static final List<String> TEXTS = List.of("", " ", "\u0000", "a\u0007b", "../../etc/passwd",
            "x".repeat(5_000), "é", "\uD83C", "\uD83C\uDFD4", "-1", "0", "99999999999999999999", "NaN",
            "1e400", "null", "{}", "[]", "'; drop table run; --", "2026-13-45T99:99:99Z", "+1000000000-12-31T23:59:59Z",
            "0000-01-01T00:00:00Z", "PT99999999999999H", "P1Y", "-PT5H", "*", "%", "%00", "a/b",
            "main", "daylight-api", "test", "1.4.1", "developer", "app", "compile", "http://127.0.0.1:1/",
            "file:///etc", "^(a+)+$", "\u202eabc", "paseo: 1\ncomponent: [");

    private Random random = new Random();

    private String text() {
        return TEXTS.get(random.nextInt(TEXTS.size()));
    }

    private String word(String name) {
        if (random.nextInt(3) == 0) {
            return text();
        }
        return switch (name) {
            case "component", "name", "source" -> "daylight-api";
            case "environment", "environments", "from", "to" -> "test";
            case "number", "version", "id", "work", "with" -> random.nextBoolean() ? "1" : "1.4.1";
            default -> text();
        };
    }

    private static String encoded(String text) {
        StringBuilder words = new StringBuilder();
        for (byte each : text.getBytes(StandardCharsets.UTF_8)) {
            words.append(Character.isLetterOrDigit(each) && each > 0 || each == '-' || each == '.'
                    ? String.valueOf((char) each) : "%%%02X".formatted(each));
        }
        return words.toString();
    }

    /** A value as the schema says, or with something else in its place. */
    private JsonNode value(JsonNode description, JsonNode schema, int depth) {
        int kind = random.nextInt(14);
        if (depth > 5 || kind == 0) {
            return odd();
        }
        if (schema.has("$ref")) {
            return value(description, description.at(schema.path("$ref").asString().substring(1)), depth);
        }
        String type = schema.path("type").isArray() ? schema.path("type").path(0).asString()
                : schema.path("type").asString();
        return switch (type) {
            case "object" -> object(description, schema, depth);
            case "array" -> Client.JSON.createArrayNode().add(value(description, schema.path("items"), depth + 1))
                    .add(value(description, schema.path("items"), depth + 1));
            case "boolean" -> Client.JSON.getNodeFactory().booleanNode(random.nextBoolean());
            case "integer", "number" -> Client.JSON.getNodeFactory()
                    .numberNode(List.of(0L, 1L, -1L, Long.MAX_VALUE, Long.MIN_VALUE).get(random.nextInt(5)));
            default -> Client.JSON.getNodeFactory().stringNode(
                    schema.has("enum") && random.nextBoolean() ? schema.path("enum").path(0).asString() : text());
        };
    }

    private ObjectNode object(JsonNode description, JsonNode schema, int depth) {
        ObjectNode made = Client.JSON.createObjectNode();
        schema.path("properties").properties().forEach(each -> {
            if (random.nextInt(6) > 0) {
                made.set(each.getKey(), value(description, each.getValue(), depth + 1));
            }
        });
        if (schema.path("additionalProperties").isObject()) {
            made.set(text(), value(description, schema.path("additionalProperties"), depth + 1));
        }
        return made;
    }

    private JsonNode odd() {
        return switch (random.nextInt(8)) {
            case 0 -> Client.JSON.getNodeFactory().nullNode();
            case 1 -> Client.JSON.createObjectNode();
            case 2 -> Client.JSON.createArrayNode().addNull();
            case 3 -> Client.JSON.getNodeFactory().numberNode(Double.MAX_VALUE);
            case 4 -> random.nextInt(20) == 0 ? Client.JSON.getNodeFactory().stringNode("x".repeat(1 << 20))
                    : Client.JSON.getNodeFactory().stringNode("x".repeat(9_000));
            case 5 -> Client.JSON.getNodeFactory().booleanNode(true);
            default -> Client.JSON.getNodeFactory().stringNode(text());
        };
    }

    private record Call(String method, String path, JsonNode operation) {}

    private record Sent(String what, String body, HttpRequest request) {}

    private Sent made(Park park, JsonNode description, Call call) {
        String path = call.path();
        StringBuilder query = new StringBuilder();
        for (JsonNode parameter : call.operation().path("parameters")) {
            String name = parameter.path("name").asString();
            if (parameter.path("in").asString().equals("path")) {
                String value = word(name);
                path = path.replace("{" + name + "}", value.isEmpty() ? "-" : encoded(value));
            } else if (parameter.path("in").asString().equals("query") && random.nextBoolean()) {
                query.append(query.isEmpty() ? '?' : '&').append(name).append('=').append(encoded(word(name)));
            }
        }
        JsonNode schema = call.operation().path("requestBody").path("content").path("application/json").path("schema");
        String body = schema.isMissingNode() ? "" : value(description, schema, 0).toString();
        if (!body.isEmpty() && random.nextInt(40) == 0) {
            body = body.substring(0, body.length() / 2);
        }
        HttpRequest.BodyPublisher sent = body.isEmpty() ? HttpRequest.BodyPublishers.noBody()
                : HttpRequest.BodyPublishers.ofString(body);
        return new Sent(call.method() + " " + path + query, body,
                HttpRequest.newBuilder(URI.create(park.address() + path + query)).timeout(Duration.ofSeconds(60))
                        .method(call.method().toUpperCase(java.util.Locale.ROOT), sent)
                        .header("Content-Type", "application/json")
                        .header("Authorization", "Bearer " + park.as("admin").token()).build());
    }

    @Test
    void noRequestIsAnsweredWithAFailureOfOurs() throws Exception {
        long seed = Long.getLong("paseo.seed", 20_261_128);
        random = new Random(seed);
        try (Park park = Park.open(); ExecutorService sending = Executors.newVirtualThreadPerTaskExecutor()) {
            park.component().push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            JsonNode description = park.as("admin").get("/api/openapi.json").good();
            List<Call> calls = new ArrayList<>();
            description.path("paths").properties().forEach(path -> path.getValue().properties().forEach(
                    operation -> calls.add(new Call(operation.getKey(), path.getKey(), operation.getValue()))));
            calls.removeIf(call -> LEFT_OUT.contains(call.method() + " " + call.path()));
            Collections.shuffle(calls, random);
            Queue<String> failures = new ConcurrentLinkedQueue<>();
            Map<Integer, AtomicInteger> statuses = new java.util.concurrent.ConcurrentSkipListMap<>();
            Semaphore room = new Semaphore(AT_ONCE);
            for (int sent = 0; sent < REQUESTS; sent++) {
                Sent request = made(park, description, calls.get(sent % calls.size()));
                room.acquire();
                sending.submit(() -> {
                    try {
                        send(request, statuses, failures);
                    } finally {
                        room.release();
                    }
                });
            }
            sending.shutdown();
            assertTrue(sending.awaitTermination(2, TimeUnit.MINUTES), "some are never answered");
            System.out.println(
                    "fuzz: " + REQUESTS + " requests of " + calls.size() + " calls, seed " + seed + ": " + statuses);
            assertEquals(List.of(), failures.stream().limit(60).toList(), () -> failures.size() + " of " + REQUESTS);
            assertEquals("UP", park.as("admin").get("/actuator/health").good().path("status").asString());
        }
    }

    private static void send(Sent sent, Map<Integer, AtomicInteger> statuses, Queue<String> failures) {
        try {
            HttpResponse<String> answer = Client.HTTP.send(sent.request(), HttpResponse.BodyHandlers.ofString());
            statuses.computeIfAbsent(answer.statusCode(), status -> new AtomicInteger()).incrementAndGet();
            boolean problem = answer.statusCode() < 400
                    || answer.headers().firstValue("Content-Type").orElse("").startsWith("application/problem+json")
                    || isServers(answer);
            if (answer.statusCode() >= 500 && answer.statusCode() != 503 || answer.statusCode() > 599 || !problem) {
                failures.add(answer.statusCode() + " " + cut(sent.what(), 300) + " " + cut(sent.body(), 400) + " -> "
                        + cut(answer.body(), 200));
            }
        } catch (IOException failed) {
            failures.add(failed + " " + cut(sent.what(), 300) + " " + cut(sent.body(), 300));
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }

    /** The server itself refuses addresses that are none, before anything of ours sees them. */
    private static boolean isServers(HttpResponse<String> answer) {
        return answer.statusCode() == 400 && answer.body().contains("Bad Request");
    }

    private static String cut(String text, int most) {
        return text.length() > most ? text.substring(0, most) + "…" : text;
    }
}
