package dev.paseo.agent.lease;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.api.agent.StepReport;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What is asked under one lease. Where the service is away, {@link Away} says so and the caller tries again; where the
 * lease is over, {@link LeaseOver}; any other {@link IOException} is of this machine.
 */
public final class LeaseClient {

    /** The lease is over: the work is another's now, or nobody's. */
    public static final class LeaseOver extends RuntimeException {
        public static LeaseOver whileWorking() {
            return new LeaseOver("the lease ended while the work went on");
        }

        LeaseOver(String message) {
            super(message);
        }
    }

    /** The service understood and refused; asking again would not help. */
    public static final class Refused extends RuntimeException {
        Refused(String message) {
            super(message);
        }
    }

    private static final Duration SHORT = Duration.ofSeconds(20);
    private static final Duration LONG = Duration.ofHours(2);
    /** How long nothing may come of a body that has begun. */
    private static final Duration SILENCE = Duration.ofMinutes(1);

    private final HttpClient http;
    private final JsonMapper json;
    private final URI service;
    private final String token;

    LeaseClient(HttpClient http, JsonMapper json, URI service, String token) {
        this.http = http;
        this.json = json;
        this.service = service;
        this.token = token;
    }

    public Assignment again() throws IOException, InterruptedException {
        return json.readValue(send(request("", SHORT).GET()), Assignment.class);
    }

    public Lease.Stop heartbeat(long fence) throws IOException, InterruptedException {
        return json.readValue(post("/heartbeat", new Lease.Heartbeat(fence)), Lease.HeartbeatAnswer.class).stop();
    }

    public void step(StepReport report) throws IOException, InterruptedException {
        send(request("/steps", SHORT).header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(report))));
    }

    public void result(Lease.Result result) throws IOException, InterruptedException {
        post("/result", result);
    }

    public long nextLine() throws IOException, InterruptedException {
        return json.readValue(send(request("/log", SHORT).GET()), Lease.LogPosition.class).nextLine();
    }

    /** Ships a block; the number of the next line that the service wants. */
    public long log(long first, byte[] block) throws IOException, InterruptedException {
        return json
                .readValue(send(request("/log?first=" + first, SHORT).header("Content-Type", "application/octet-stream")
                        .POST(HttpRequest.BodyPublishers.ofByteArray(block))), Lease.LogPosition.class)
                .nextLine();
    }

    public InputStream source() throws IOException, InterruptedException {
        return stream("/source");
    }

    /**
     * Brings the bytes of this digest into a file; the digest of what came. Over a plain connection: with large bodies
     * it does half the work.
     */
    public String bytes(String digest, Path file) throws IOException {
        HttpURLConnection connection = (HttpURLConnection) service.resolve("/agent/v1/lease/bytes/" + digest).toURL()
                .openConnection();
        connection.setConnectTimeout((int) SHORT.toMillis());
        connection.setReadTimeout((int) SILENCE.toMillis());
        // The token is for this service alone.
        connection.setInstanceFollowRedirects(false);
        connection.setRequestProperty("Authorization", "Bearer " + token);
        int status = status(connection);
        if (status != 200) {
            try (InputStream said = connection.getErrorStream()) {
                check(status, said == null ? "" : new String(Away.from(said).readNBytes(2000), StandardCharsets.UTF_8));
            }
            throw new Away("the service answered " + status);
        }
        try (InputStream body = Away.from(connection.getInputStream())) {
            String found = DigestedFile.write(body, file);
            if (connection.getContentLengthLong() >= 0 && Files.size(file) != connection.getContentLengthLong()) {
                throw new Away("the connection ended after " + Files.size(file) + " of "
                        + connection.getContentLengthLong() + " bytes");
            }
            return found;
        }
    }

    private static int status(HttpURLConnection connection) throws Away {
        try {
            return connection.getResponseCode();
        } catch (IOException away) {
            throw new Away(away);
        }
    }

    private record ArrivedFile(String digest, long size) {}

    /** Sends a file that becomes an artifact; the digest of what arrived. */
    public String output(String name, Path file) throws IOException, InterruptedException {
        try {
            return json.readValue(send(
                    request("/outputs/" + encode(name) + "?fileName=" + encode(file.getFileName().toString()), LONG)
                            .header("Content-Type", "application/octet-stream")
                            .PUT(HttpRequest.BodyPublishers.ofFile(file))),
                    ArrivedFile.class).digest();
        } catch (FileNotFoundException gone) {
            throw new Refused(file + " is gone");
        }
    }

    /** Sends an archive: {@code /files}, {@code /reports/KIND} or {@code /reuse/KEY}; the digest of what arrived. */
    public String archive(String path, Path file) throws IOException, InterruptedException {
        return json.readValue(send(request(path, LONG).header("Content-Type", "application/octet-stream")
                .PUT(HttpRequest.BodyPublishers.ofFile(file))), ArrivedFile.class).digest();
    }

    /**
     * Folders kept from an earlier run.
     *
     * @param exact whether they were kept under the very key
     */
    public record Reused(InputStream bytes, String digest, boolean exact, String run) {}

    public Optional<Reused> reused(String key) throws IOException, InterruptedException {
        HttpResponse<InputStream> answer = open("/reuse/" + key);
        if (answer.statusCode() == 204) {
            answer.body().close();
            return Optional.empty();
        }
        return Optional.of(new Reused(Away.from(answer.body()), header(answer, "X-Paseo-Digest"),
                header(answer, "X-Paseo-Exact").equals("true"),
                header(answer, "X-Paseo-Run")));
    }

    private static String header(HttpResponse<?> answer, String name) {
        return answer.headers().firstValue(name).orElse("");
    }

    private static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private String post(String path, Object body) throws IOException, InterruptedException {
        return send(request(path, SHORT).header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(body))));
    }

    private HttpRequest.Builder request(String path, Duration timeout) {
        return HttpRequest.newBuilder(service.resolve("/agent/v1/lease" + path)).timeout(timeout)
                .header("Authorization", "Bearer " + token);
    }

    private String send(HttpRequest.Builder request) throws IOException, InterruptedException {
        HttpResponse<String> answer = answered(request, HttpResponse.BodyHandlers.ofString());
        check(answer.statusCode(), answer.body());
        return answer.body();
    }

    private InputStream stream(String path) throws IOException, InterruptedException {
        return Away.from(open(path).body());
    }

    private HttpResponse<InputStream> open(String path) throws IOException, InterruptedException {
        HttpResponse<InputStream> answer = answered(request(path, LONG).GET(),
                HttpResponse.BodyHandlers.ofInputStream());
        if (answer.statusCode() >= 300) {
            try (InputStream body = Away.from(answer.body())) {
                check(answer.statusCode(), new String(body.readNBytes(2000), StandardCharsets.UTF_8));
            }
        }
        return answer;
    }

    private <T> HttpResponse<T> answered(HttpRequest.Builder request, HttpResponse.BodyHandler<T> handler)
            throws IOException, InterruptedException {
        try {
            return http.send(request.build(), handler);
        } catch (FileNotFoundException local) {
            throw local;
        } catch (IOException away) {
            throw new Away(away);
        }
    }

    private void check(int status, String body) throws IOException {
        if (status == 410 || status == 401) {
            throw new LeaseOver(body);
        }
        if (status >= 500) {
            throw new Away(detail(status, body));
        }
        if (status >= 300) {
            throw new Refused(detail(status, body));
        }
    }

    /** What the service said, where it is a problem of RFC 9457. */
    private String detail(int status, String body) {
        try {
            return json.readTree(body).path("detail").asString("the service answered " + status);
        } catch (JacksonException noProblem) {
            return "the service answered " + status + ": " + body;
        }
    }
}
