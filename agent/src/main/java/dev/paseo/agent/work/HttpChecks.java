package dev.paseo.agent.work;

import dev.paseo.agent.process.StepProcess.StopSignal;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Optional;

/** Asks addresses until they answer as they should, or their time is over. */
final class HttpChecks {

    private static final int MOST_BYTES = 1 << 20;
    private static final Duration ONE_REQUEST = Duration.ofSeconds(5);

    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NEVER).connectTimeout(Duration.ofSeconds(3)).build();

    /** Why it does not answer as it should; empty where it does. */
    Optional<String> check(Assignment.HttpCheck check, StopSignal stop) throws InterruptedException {
        long until = System.nanoTime() + check.withinMillis() * 1_000_000;
        while (true) {
            Optional<String> wrong = once(check);
            if (wrong.isEmpty() || System.nanoTime() > until || stop.wanted()) {
                return wrong.map(why -> check.address() + " " + why + ", for " + check.withinMillis() / 1000 + " s");
            }
            Thread.sleep(200);
        }
    }

    private Optional<String> once(Assignment.HttpCheck check) throws InterruptedException {
        try {
            HttpResponse<InputStream> answer = http.send(HttpRequest.newBuilder(URI.create(check.address())).timeout(ONE_REQUEST).GET().build(),
                    HttpResponse.BodyHandlers.ofInputStream());
            try (InputStream body = answer.body()) {
                if (answer.statusCode() != check.status()) {
                    return Optional.of("answered " + answer.statusCode() + ", not " + check.status());
                }
                String text = new String(body.readNBytes(MOST_BYTES), StandardCharsets.UTF_8);
                return check.contains().filter(wanted -> !text.contains(wanted))
                        .map(wanted -> "answered \"" + shorten(text) + "\", which does not contain \"" + wanted + "\"");
            }
        } catch (IOException | IllegalArgumentException failed) {
            return Optional.of("did not answer: " + Optional.ofNullable(failed.getMessage()).orElse(failed.getClass().getSimpleName()));
        }
    }

    private static String shorten(String text) {
        String line = text.replaceAll("\\s+", " ").strip();
        return line.length() > 120 ? line.substring(0, 120) + "…" : line;
    }
}
