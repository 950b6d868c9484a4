package dev.paseo.cli;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/**
 * Runs the commands people use most, against a small server of its own, so that an archive of their classes can be
 * made.
 */
final class Training {

    private static final String WHEREABOUTS = """
            {"now":"2026-01-01T10:00:00Z","environments":[{"name":"test","gated":false,"hosts":1}],
             "rows":[{"component":"daylight-api","summary":"","cells":[{"environment":"test","version":"1.4.1",\
            "deployment":1,
              "since":"2026-01-01T09:00:00Z","hosts":1,"coming":[{"deployment":2,"version":"1.4.2","status":"waiting",
              "requestedAt":"2026-01-01T09:30:00Z","gate":"0 of 1 approval","forYou":true}],"behind":1}]}]}""";

    private Training() {}

    public static void main(String[] arguments) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            byte[] body = WHEREABOUTS.getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(exchange.getRequestURI().getPath().endsWith("whereabouts") ? 200 : 404,
                    body.length);
            try (OutputStream out = exchange.getResponseBody()) {
                out.write(body);
            }
        });
        server.start();
        Map<String, String> environment = Map.of("PASEO_SERVICE", "http://127.0.0.1:" + server.getAddress().getPort(),
                "PASEO_TOKEN", "training");
        for (String[] command : new String[][]{{"where"}, {"where", "--output", "json"}, {"--help"},
                {"show", "deployment", "1"}, {"check", "/dev/null"}}) {
            PrintWriter out = new PrintWriter(new StringWriter());
            Paseo.run(new Context(out, InputStream.nullInputStream(), environment, true), out, command);
        }
        server.stop(0);
    }
}
