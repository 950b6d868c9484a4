package dev.paseo.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ThreadLocalRandom;

/**
 * The router of the park, as a load balancer would be in a real one: each component has a port, behind which its
 * traffic is shared between addresses. {@code PUT /COMPONENT} on the router's own port says how: lines of a share in
 * percent and an address. What it was told is kept in a folder.
 */
public final class Router {

    private record Share(int percent, String address) {}

    private final Path folder;
    private final HttpClient http = HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(2)).build();

    private Router(Path folder) {
        this.folder = folder;
    }

    /** Arguments: the folder, the router's own port, and COMPONENT=PORT for each. */
    public static void main(String[] arguments) throws IOException {
        Router router = new Router(Files.createDirectories(Path.of(arguments[0]).toAbsolutePath()));
        List<String> routes = Arrays.asList(arguments).subList(2, arguments.length);
        List<String> names = routes.stream().map(route -> route.substring(0, route.indexOf('='))).toList();
        serve(Integer.parseInt(arguments[1]), exchange -> router.told(exchange, names));
        for (String route : routes) {
            String name = route.substring(0, route.indexOf('='));
            serve(Integer.parseInt(route.substring(route.indexOf('=') + 1)),
                    exchange -> router.forward(exchange, name));
        }
    }

    private interface Handler {
        void handle(HttpExchange exchange) throws IOException, InterruptedException;
    }

    private static void serve(int port, Handler handler) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/", exchange -> {
            try (exchange) {
                handler.handle(exchange);
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        });
        server.start();
    }

    private void told(HttpExchange exchange, List<String> names) throws IOException {
        String name = exchange.getRequestURI().getPath().substring(1);
        String text = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        boolean good = names.contains(name) && exchange.getRequestMethod().equals("PUT")
                && text.lines().allMatch(line -> line.matches("[0-9]{1,3} http://127\\.0\\.0\\.1:[0-9]+"));
        if (good) {
            Files.writeString(folder.resolve(name), text);
        }
        exchange.sendResponseHeaders(good ? 204 : 400, -1);
    }

    private void forward(HttpExchange exchange, String name) throws IOException, InterruptedException {
        List<Share> shares = new ArrayList<>();
        Path file = folder.resolve(name);
        if (Files.exists(file)) {
            Files.readAllLines(file).stream().map(line -> line.split(" "))
                    .forEach(part -> shares.add(new Share(Integer.parseInt(part[0]), part[1])));
        }
        int left = ThreadLocalRandom.current().nextInt(Math.max(1, shares.stream().mapToInt(Share::percent).sum()));
        for (Share share : shares) {
            left -= share.percent();
            if (left < 0) {
                answer(exchange, share.address());
                return;
            }
        }
        exchange.sendResponseHeaders(503, -1);
    }

    private void answer(HttpExchange exchange, String address) throws IOException, InterruptedException {
        try {
            HttpResponse<byte[]> answer = http.send(
                    HttpRequest.newBuilder(URI.create(address + exchange.getRequestURI()))
                            .timeout(Duration.ofSeconds(10)).build(),
                    HttpResponse.BodyHandlers.ofByteArray());
            answer.headers().firstValue("Content-Type")
                    .ifPresent(type -> exchange.getResponseHeaders().set("Content-Type", type));
            exchange.sendResponseHeaders(answer.statusCode(), answer.body().length == 0 ? -1 : answer.body().length);
            exchange.getResponseBody().write(answer.body());
        } catch (IOException away) {
            exchange.sendResponseHeaders(502, -1);
        }
    }
}
