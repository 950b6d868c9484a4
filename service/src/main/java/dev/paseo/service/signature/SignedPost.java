package dev.paseo.service.signature;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.reach.Reach;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import org.springframework.stereotype.Component;

/** Posts signed messages to whoever may be told or asked, as Standard Webhooks have it. Follows no redirect. */
@Component
public class SignedPost {

    /** How long its status is waited for. */
    private static final Duration ANSWER = Duration.ofSeconds(15);

    private final HttpClient http = HttpClient.newBuilder().connectTimeout(ANSWER)
            .followRedirects(HttpClient.Redirect.NEVER).build();
    private final Reach reach;
    private final ServiceClock clock;

    SignedPost(Reach reach, ServiceClock clock) {
        this.reach = reach;
        this.clock = clock;
    }

    /**
     * A message.
     *
     * @param id     the same whenever it is sent once more
     * @param secret it is signed with, as {@code whsec_} and base64
     */
    public record Message(String address, String contentType, String id, String secret, byte[] body) {}

    /**
     * The status that it is answered with; nothing beyond is read, since somebody may trickle it.
     *
     * @throws dev.paseo.service.problem.Refusal where the address may not be told or asked
     * @throws IOException where it does not answer in time
     */
    public int send(Message message) throws IOException, InterruptedException {
        reach.allow(Reach.Kind.RECEIVER, message.address());
        long seconds = clock.outside().getEpochSecond();
        HttpRequest request = HttpRequest.newBuilder(URI.create(message.address())).timeout(ANSWER)
                .header("Content-Type", message.contentType())
                .header("webhook-id", message.id()).header("webhook-timestamp", Long.toString(seconds))
                .header("webhook-signature",
                        StandardWebhooks.sign(message.secret(), message.id(), seconds, message.body()))
                .POST(HttpRequest.BodyPublishers.ofByteArray(message.body())).build();
        HttpResponse<InputStream> answer = http.send(request, HttpResponse.BodyHandlers.ofInputStream());
        answer.body().close();
        return answer.statusCode();
    }
}
