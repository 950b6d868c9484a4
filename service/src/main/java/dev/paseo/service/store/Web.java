package dev.paseo.service.store;

import dev.paseo.core.text.Size;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.reach.Reach;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Asks stores that may be observed, and no others: a redirect counts as a new address. */
@Component
class Web {

    static final long LARGEST = 16_000_000_000L;
    private static final int LARGEST_TEXT = 4_000_000;
    private static final int MOST_REDIRECTS = 3;
    private static final Duration CONNECT = Duration.ofSeconds(10);
    private static final Duration ANSWER = Duration.ofSeconds(30);
    private static final Duration LONGEST_BODY = Duration.ofHours(2);
    private static final Logger LOG = LoggerFactory.getLogger(Web.class);

    private final HttpClient http = HttpClient.newBuilder().connectTimeout(CONNECT)
            .followRedirects(HttpClient.Redirect.NEVER).build();
    private final Reach reach;
    private final KeptBytes bytes;
    private final ServiceClock clock;

    Web(Reach reach, KeptBytes bytes, ServiceClock clock) {
        this.reach = reach;
        this.bytes = bytes;
        this.clock = clock;
    }

    /** A text answer with its headers. */
    record Text(int status, byte[] body, HttpResponse<InputStream> answer) {

        Optional<String> header(String name) {
            return answer.headers().firstValue(name);
        }

        /** The store has nothing at this address (yet). */
        boolean absent() {
            return status == 404;
        }

        Text good(URI address) {
            if (status != 200) {
                throw Refusal.unavailable(address + " answered with status " + status);
            }
            return this;
        }
    }

    void allow(String address) {
        reach.allow(Reach.Kind.STORE, address);
    }

    /** A body of at most 4 MB. */
    Text text(URI address, Map<String, String> headers) {
        HttpResponse<InputStream> answer = send(address, headers, MOST_REDIRECTS);
        try (InputStream in = within(answer.body(), ANSWER)) {
            byte[] body = in.readNBytes(LARGEST_TEXT + 1);
            if (body.length > LARGEST_TEXT) {
                throw Refusal.unavailable(address + " answers with more than " + Size.words(LARGEST_TEXT));
            }
            return new Text(answer.statusCode(), body, answer);
        } catch (IOException failed) {
            throw away(address, failed);
        }
    }

    /** Keeps a body in the byte store as it comes. */
    ByteStore.StoredBytes keep(URI address, Map<String, String> headers, long most) {
        HttpResponse<InputStream> answer = send(address, headers, MOST_REDIRECTS);
        try (InputStream in = within(answer.body(), LONGEST_BODY)) {
            if (answer.statusCode() != 200) {
                throw Refusal.unavailable(address + " answered with status " + answer.statusCode());
            }
            if (answer.headers().firstValueAsLong("content-length").orElse(0) > most) {
                throw Refusal.tooLarge(address + " has more than " + Size.words(most));
            }
            return bytes.keep(in, most, clock.now());
        } catch (IOException failed) {
            throw away(address, failed);
        }
    }

    /** A body that takes longer is cut off: whoever trickles is like whoever is silent. */
    static InputStream within(InputStream body, Duration limit) {
        CompletableFuture<Void> cut = new CompletableFuture<>();
        cut.completeOnTimeout(null, limit.toMillis(), TimeUnit.MILLISECONDS).thenRun(() -> close(body));
        return new FilterInputStream(body) {
            @Override
            public int read(byte[] bytes, int offset, int length) throws IOException {
                try {
                    return super.read(bytes, offset, length);
                } catch (IOException failed) {
                    throw cut.isDone()
                            ? new IOException("its answer did not end within " + limit.toSeconds() + " s", failed)
                            : failed;
                }
            }

            @Override
            public void close() throws IOException {
                cut.cancel(false);
                super.close();
            }
        };
    }

    private static void close(InputStream body) {
        try {
            body.close();
        } catch (IOException failed) {
            LOG.info("an answer that took too long cannot be closed: {}", failed.toString());
        }
    }

    private HttpResponse<InputStream> send(URI address, Map<String, String> headers, int redirects) {
        allow(address.toString());
        HttpRequest.Builder request = HttpRequest.newBuilder(address).timeout(ANSWER).GET();
        headers.forEach(request::header);
        try {
            HttpResponse<InputStream> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
            Optional<String> location = answer.headers().firstValue("location");
            if (answer.statusCode() / 100 != 3 || location.isEmpty()) {
                return answer;
            }
            answer.body().close();
            if (redirects == 0) {
                throw Refusal.unavailable(address + " redirected more than " + MOST_REDIRECTS + " times");
            }
            return send(address.resolve(location.get()), Map.of(), redirects - 1);
        } catch (IOException failed) {
            throw away(address, failed);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw Refusal.unavailable("The request to " + address + " was interrupted");
        }
    }

    private static Refusal away(URI address, IOException failed) {
        return Refusal.unavailable(
                address + " does not answer: " + (failed instanceof ConnectException ? "nobody listens there"
                        : failed.getMessage() == null ? failed.getClass().getSimpleName() : failed.getMessage()));
    }
}
