package dev.paseo.e2e;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asks the API as somebody. */
final class Client {

    static final HttpClient HTTP = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(Duration.ofSeconds(5)).build();
    static final JsonMapper JSON = JsonMapper.builder().build();

    private final String address;
    private final String token;

    Client(String address, String token) {
        this.address = address;
        this.token = token;
    }

    /** An answer: its status, and its body as JSON where it is some. */
    record Answer(int status, JsonNode body) {
        String detail() {
            return body.path("detail").asString("");
        }

        JsonNode good() {
            if (status >= 300) {
                throw new AssertionError(status + ": " + body);
            }
            return body;
        }
    }

    String token() {
        return token;
    }

    Answer get(String path) {
        return send(HttpRequest.newBuilder().GET(), path);
    }

    Answer post(String path, Map<String, ?> body) {
        return send(HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body))),
                path);
    }

    Answer put(String path, Map<String, ?> body) {
        return send(HttpRequest.newBuilder().PUT(HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body))),
                path);
    }

    Answer delete(String path) {
        return send(HttpRequest.newBuilder().DELETE(), path);
    }

    /** Sends a piece of a file. */
    Answer bytes(String path, long offset, byte[] piece) {
        try {
            HttpResponse<String> answer = raw(
                    HttpRequest.newBuilder().PUT(HttpRequest.BodyPublishers.ofByteArray(piece))
                            .header("Content-Type", "application/octet-stream")
                            .header("Upload-Offset", Long.toString(offset)).header("Authorization", "Bearer " + token),
                    path);
            return new Answer(answer.statusCode(), JSON.readTree(answer.body()));
        } catch (IOException away) {
            return new Answer(0, JSON.readTree("{\"detail\":\"away\"}"));
        }
    }

    /** A body as it is. */
    String text(String path) throws IOException {
        return raw(HttpRequest.newBuilder().GET().header("Authorization", "Bearer " + token), path).body();
    }

    private Answer send(HttpRequest.Builder request, String path) {
        try {
            HttpResponse<String> answer = raw(
                    request.header("Content-Type", "application/json").header("Authorization", "Bearer " + token),
                    path);
            String body = answer.body();
            boolean json = body.startsWith("{") || body.startsWith("[");
            return new Answer(answer.statusCode(), JSON.readTree(json ? body : "{}"));
        } catch (IOException away) {
            return new Answer(0, JSON.readTree("{\"detail\":\"away\"}"));
        }
    }

    HttpResponse<String> raw(HttpRequest.Builder request, String path) throws IOException {
        try {
            return HTTP.send(request.uri(URI.create(address + path)).timeout(Duration.ofSeconds(40)).build(),
                    HttpResponse.BodyHandlers.ofString());
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw new IOException(stop);
        }
    }
}
