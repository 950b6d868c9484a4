package dev.paseo.agent.lease;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Enrolment;
import dev.paseo.api.agent.Watch;
import dev.paseo.api.agent.WorkRequest;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;

/** What the agent asks the service with its own secret. */
public final class ServiceClient {

    private static final Duration POLL = Duration.ofSeconds(20);

    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(Duration.ofSeconds(5)).build();
    private final JsonMapper json = JsonMapper.builder().build();
    private final URI service;

    public ServiceClient(URI service) {
        this.service = service;
    }

    /** Throws where the service is away; refused for good where {@link LeaseClient.Refused} is thrown. */
    public Enrolment.Enrolled enrol(String token, String secret) throws IOException, InterruptedException {
        HttpResponse<String> answer = answered(to("/agent/v1/enrolment", Duration.ofSeconds(20))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(new Enrolment(token, secret)))));
        if (answer.statusCode() >= 500) {
            throw new Away("the service answered " + answer.statusCode());
        }
        if (answer.statusCode() != 200) {
            throw new LeaseClient.Refused("the service did not enrol this agent: " + answer.body());
        }
        return json.readValue(answer.body(), Enrolment.Enrolled.class);
    }

    private HttpResponse<String> answered(HttpRequest.Builder request) throws Away, InterruptedException {
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException away) {
            throw new Away(away);
        }
    }

    /** Waits a while for work. */
    public Optional<Assignment> work(String secret, WorkRequest request) throws IOException, InterruptedException {
        HttpResponse<String> answer = http.send(to("/agent/v1/work?waitMillis=" + POLL.toMillis(), POLL.plusSeconds(20))
                .header("Authorization", "Bearer " + secret).header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(request))).build(),
                HttpResponse.BodyHandlers.ofString());
        return switch (answer.statusCode()) {
            case 200 -> Optional.of(json.readValue(answer.body(), Assignment.class));
            case 204 -> Optional.empty();
            default -> throw new IOException("the service answered " + answer.statusCode() + ": " + answer.body());
        };
    }

    /** What this agent keeps an eye on. */
    public Watch.Watched watched(String secret) throws IOException, InterruptedException {
        HttpResponse<String> answer = http.send(
                to("/agent/v1/watch", Duration.ofSeconds(20)).header("Authorization", "Bearer " + secret).GET().build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() != 200) {
            throw new IOException("the service answered " + answer.statusCode());
        }
        return json.readValue(answer.body(), Watch.Watched.class);
    }

    public void seen(String secret, Watch.Report report) throws IOException, InterruptedException {
        HttpResponse<String> answer = http.send(
                to("/agent/v1/watch", Duration.ofSeconds(20)).header("Authorization", "Bearer " + secret)
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(report))).build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() != 204) {
            throw new IOException("the service answered " + answer.statusCode());
        }
    }

    public LeaseClient lease(String token) {
        return new LeaseClient(http, json, service, token);
    }

    private HttpRequest.Builder to(String path, Duration timeout) {
        return HttpRequest.newBuilder(service.resolve(path)).timeout(timeout);
    }
}
