package dev.paseo.agent.check;

import dev.paseo.api.address.Network;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Requests whose answers are bounded in time, size and redirects. */
final class HttpAsking {

    private static final int MOST_BYTES = 1_000_000;
    private static final Duration ONE_REQUEST = Duration.ofSeconds(5);

    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NEVER).connectTimeout(Duration.ofSeconds(3)).build();
    private final JsonMapper json = JsonMapper.builder().build();

    /** @param body at most 1 MB of it */
    private record Answer(int status, Map<String, List<String>> headers, String body) {}

    /** The text of a page, or why there is none. */
    record Page(Optional<String> problem, String body) {}

    Optional<Page> text(String address) throws InterruptedException {
        try {
            Answer answer = get(URI.create(address));
            return Optional.of(new Page(answer.status() == 200 ? Optional.empty()
                    : Optional.of("answered " + answer.status() + ", not 200"), answer.body()));
        } catch (IOException | IllegalArgumentException failed) {
            return Optional.of(new Page(Optional.of("did not answer: " + message(failed)), ""));
        }
    }

    Optional<String> ask(Assignment.Check check) throws InterruptedException {
        try {
            URI at = URI.create(check.target());
            Answer answer = get(at);
            int followed = 0;
            while (answer.status() >= 300 && answer.status() < 400 && answer.status() != 304 && check.redirects() > 0) {
                if (followed++ == check.redirects()) {
                    return Optional.of("redirected more than " + check.redirects()
                            + (check.redirects() == 1 ? " time" : " times"));
                }
                Optional<String> location = Optional.ofNullable(answer.headers().get("location")).map(List::getFirst);
                if (location.isEmpty()) {
                    return Optional.of("redirected to nowhere");
                }
                at = at.resolve(location.get());
                if (!at.getScheme().matches("https?")) {
                    return Optional.of("redirected to " + shorten(at.toString()));
                }
                answer = get(at);
            }
            return judge(check, answer);
        } catch (IOException | IllegalArgumentException failed) {
            return Optional.of("did not answer: " + message(failed));
        }
    }

    private static String message(Exception failed) {
        return Optional.ofNullable(failed.getMessage()).orElse(failed.getClass().getSimpleName());
    }

    private Optional<String> judge(Assignment.Check check, Answer answer) {
        if (answer.status() != check.status()) {
            return Optional.of("answered " + answer.status() + ", not " + check.status());
        }
        for (Map.Entry<String, String> header : check.header().entrySet()) {
            Optional<String> value = Optional
                    .ofNullable(answer.headers().get(header.getKey().toLowerCase(java.util.Locale.ROOT)))
                    .map(List::getFirst);
            if (value.filter(text -> text.contains(header.getValue())).isEmpty()) {
                return Optional.of("answered with " + header.getKey() + " "
                        + value.map(text -> "\"" + shorten(text) + "\"").orElse("missing")
                        + ", not \"" + header.getValue() + "\"");
            }
        }
        for (Map.Entry<String, String> field : check.json().entrySet()) {
            Optional<String> wrong = field(answer.body(), field.getKey(), field.getValue());
            if (wrong.isPresent()) {
                return wrong;
            }
        }
        return check.contains().filter(wanted -> !answer.body().contains(wanted))
                .map(wanted -> "answered \"" + shorten(answer.body()) + "\", which does not contain \"" + wanted
                        + "\"");
    }

    private Optional<String> field(String body, String path, String wanted) {
        try {
            JsonNode node = json.readTree(body);
            for (String name : path.split("\\.")) {
                node = node.isArray() && name.matches("[0-9]{1,6}") ? node.path(Integer.parseInt(name))
                        : node.path(name);
            }
            String found = node.isValueNode() ? node.asString() : node.isMissingNode() ? "nothing" : "no single value";
            return found.equals(wanted) ? Optional.empty()
                    : Optional.of("answered " + shorten(found) + " as " + path + ", not " + wanted);
        } catch (JacksonException broken) {
            return Optional.of("answered no JSON: \"" + shorten(body) + "\"");
        }
    }

    /** One request; whoever trickles is cut off like whoever is silent. */
    private Answer get(URI address) throws IOException, InterruptedException {
        reachable(address.getHost());
        HttpResponse<InputStream> answer = http.send(HttpRequest.newBuilder(address).timeout(ONE_REQUEST).GET().build(),
                HttpResponse.BodyHandlers.ofInputStream());
        try (InputStream body = answer.body()) {
            CompletableFuture<byte[]> read = new CompletableFuture<>();
            Thread.startVirtualThread(() -> {
                try {
                    read.complete(body.readNBytes(MOST_BYTES));
                } catch (IOException failed) {
                    read.completeExceptionally(failed);
                }
            });
            return new Answer(answer.statusCode(), answer.headers().map(),
                    new String(read.get(ONE_REQUEST.toSeconds(), TimeUnit.SECONDS), StandardCharsets.UTF_8));
        } catch (TimeoutException slow) {
            throw new IOException("the answer did not end within " + ONE_REQUEST.toSeconds() + " s");
        } catch (ExecutionException failed) {
            throw new IOException(message(failed));
        }
    }

    /**
     * This machine may be asked about itself; what its link alone has may not, since clouds hand out credentials there.
     */
    private static void reachable(String host) throws IOException {
        for (InetAddress each : InetAddress.getAllByName(host)) {
            Optional<String> reason = each.isLoopbackAddress() ? Optional.empty()
                    : Network.reasonAgainst(each, List.of());
            if (reason.isPresent()) {
                throw new IOException(host + (Network.literal(host) ? "" : " resolves to " + each.getHostAddress())
                        + ", " + reason.get() + ": it is not asked");
            }
        }
    }

    private static String shorten(String text) {
        String line = text.replaceAll("\\s+", " ").strip();
        return line.length() > 120 ? line.substring(0, 120) + "…" : line;
    }
}
