package park.daylight;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;

/** Serves the day's times of each hut as JSON, with /health and /version. Arguments: port, file of the data key. */
public final class DaylightApi {

    private DaylightApi() {}

    public static void main(String[] arguments) throws IOException {
        int port = Integer.parseInt(arguments[0]);
        boolean keyed = Files.size(Path.of(arguments[1])) > 0;
        String version = version();
        ZoneId zone = ZoneId.systemDefault();
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/health", exchange -> answer(exchange, keyed ? 200 : 503, "{\"healthy\":" + keyed + "}"));
        server.createContext("/version", exchange -> answer(exchange, 200, "{\"version\":\"" + version + "\"}"));
        server.createContext("/times/today", exchange -> answer(exchange, 200, Times.of(LocalDate.now(zone), zone, version)));
        server.start();
        System.out.println("daylight-api " + version + " listens on " + port);
    }

    private static String version() throws IOException {
        try (InputStream in = DaylightApi.class.getResourceAsStream("/version.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        }
    }

    private static void answer(HttpExchange exchange, int status, String json) throws IOException {
        byte[] body = json.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", "application/json");
        exchange.sendResponseHeaders(status, body.length);
        try (OutputStream out = exchange.getResponseBody()) {
            out.write(body);
        }
    }
}
