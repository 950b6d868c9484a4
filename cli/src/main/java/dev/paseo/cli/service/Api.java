package dev.paseo.cli.service;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Asks the service's API. Answers are JSON trees: the client prints what the service says and needs no classes for it.
 */
public final class Api {

    private static final int CONNECT_MILLIS = 5_000;
    private static final int READ_MILLIS = 60_000;
    /** In seconds. */
    private static final int LONGEST_WAIT = 2;
    private static final int MOST_WAITS = 20;

    private final ClientSettings.Target target;
    private final JsonMapper json;

    public Api(ClientSettings.Target target, JsonMapper json) {
        this.target = target;
        this.json = json;
    }

    public String address() {
        return target.address();
    }

    public ObjectNode object() {
        return json.createObjectNode();
    }

    /** A path with each part encoded: {@code path("runs", "daylight-api", "41")}. */
    public static String path(String... parts) {
        StringBuilder path = new StringBuilder("/api/v1");
        for (String part : parts) {
            path.append('/').append(encode(part));
        }
        return path.toString();
    }

    public static String encode(String part) {
        return URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** A query of what is there, as it stands behind a path. */
    public static String query(Map<String, Optional<String>> asked) {
        return asked.entrySet().stream().filter(each -> each.getValue().isPresent())
                .map(each -> each.getKey() + "=" + encode(each.getValue().orElseThrow()))
                .collect(Collectors.joining("&", "?", ""));
    }

    public JsonNode get(String path) {
        return read(send("GET", path, Optional.empty()));
    }

    public JsonNode post(String path, JsonNode body) {
        return read(send("POST", path, Optional.of(body)));
    }

    public JsonNode put(String path, JsonNode body) {
        return read(send("PUT", path, Optional.of(body)));
    }

    public JsonNode delete(String path) {
        return read(send("DELETE", path, Optional.empty()));
    }

    public String text(String path) {
        return new String(send("GET", path, Optional.empty()), StandardCharsets.UTF_8);
    }

    public void copy(String path, OutputStream out) {
        try {
            HttpURLConnection connection = open("GET", path, Optional.empty());
            try (InputStream in = connection.getInputStream()) {
                in.transferTo(out);
            }
        } catch (IOException failed) {
            throw unreachable(failed);
        }
    }

    /**
     * Sends a file's bytes from an offset on.
     *
     * @throws IOException where the connection broke; what arrived before counts
     */
    public void send(String path, Path file, long offset) throws IOException {
        HttpURLConnection connection = connect(path);
        connection.setRequestMethod("PUT");
        connection.setConnectTimeout(CONNECT_MILLIS);
        connection.setReadTimeout(READ_MILLIS);
        connection.setDoOutput(true);
        connection.setFixedLengthStreamingMode(Files.size(file) - offset);
        connection.setRequestProperty("Content-Type", "application/octet-stream");
        connection.setRequestProperty("Upload-Offset", Long.toString(offset));
        target.token().ifPresent(token -> connection.setRequestProperty("Authorization", "Bearer " + token));
        try (InputStream in = Files.newInputStream(file); OutputStream out = connection.getOutputStream()) {
            in.skipNBytes(offset);
            in.transferTo(out);
        }
        if (connection.getResponseCode() >= 400) {
            throw failure(connection);
        }
    }

    private JsonNode read(byte[] body) {
        return body.length == 0 ? json.createObjectNode() : json.readTree(body);
    }

    private byte[] send(String method, String path, Optional<JsonNode> body) {
        try {
            try (InputStream in = open(method, path, body).getInputStream()) {
                return in.readAllBytes();
            }
        } catch (IOException failed) {
            throw unreachable(failed);
        }
    }

    private Failure unreachable(IOException failed) {
        return new Failure(Failure.Kind.UNREACHABLE, target.address() + " is unreachable: " + Problems.words(failed)
                + ". Does the service run there? Name another with --service, or sign in there: paseo sign-in URL");
    }

    /** A service that is looked at too often says when to come again: so long is waited, where it is a moment. */
    private HttpURLConnection open(String method, String path, Optional<JsonNode> body) throws IOException {
        for (int waits = 0;; waits++) {
            HttpURLConnection connection = ask(method, path, body);
            int status = connection.getResponseCode();
            if (status < 400) {
                return connection;
            }
            long seconds = connection.getHeaderFieldLong("Retry-After", Long.MAX_VALUE);
            if (status != 429 || !method.equals("GET") || seconds > LONGEST_WAIT || waits == MOST_WAITS) {
                throw failure(connection);
            }
            try {
                Thread.sleep(Duration.ofSeconds(seconds));
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
                throw failure(connection);
            }
        }
    }

    private HttpURLConnection ask(String method, String path, Optional<JsonNode> body) throws IOException {
        HttpURLConnection connection = connect(path);
        connection.setRequestMethod(method);
        connection.setConnectTimeout(CONNECT_MILLIS);
        connection.setReadTimeout(READ_MILLIS);
        connection.setRequestProperty("Accept", "application/json, text/plain, */*");
        target.token().ifPresent(token -> connection.setRequestProperty("Authorization", "Bearer " + token));
        if (body.isPresent()) {
            connection.setDoOutput(true);
            connection.setRequestProperty("Content-Type", "application/json");
            try (OutputStream out = connection.getOutputStream()) {
                out.write(json.writeValueAsBytes(body.get()));
            }
        }
        return connection;
    }

    private HttpURLConnection connect(String path) throws IOException {
        try {
            return (HttpURLConnection) new URI(target.address() + path).toURL().openConnection();
        } catch (URISyntaxException | IllegalArgumentException | ClassCastException wrong) {
            throw new Failure(Failure.Kind.USAGE,
                    target.address() + " is not the address of a service; it looks like http://HOST:PORT");
        }
    }

    private Failure failure(HttpURLConnection connection) throws IOException {
        int status = connection.getResponseCode();
        String detail = "The service answered " + status;
        try (InputStream in = connection.getErrorStream()) {
            detail = in == null ? detail : Problems.words(json.readTree(in.readAllBytes())).orElse(detail);
        } catch (JacksonException noProblem) {
            detail = detail + "; is " + target.address() + " a Paseo service?";
        }
        if (status == 401) {
            return new Failure(Failure.Kind.NOT_ALLOWED, detail + "\npaseo sign-in " + target.address());
        }
        return new Failure(status == 403 ? Failure.Kind.NOT_ALLOWED : status == 404
                ? Failure.Kind.NOT_FOUND : status >= 500 ? Failure.Kind.UNREACHABLE : Failure.Kind.REFUSED, detail);
    }
}
