package dev.paseo.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * The supervisor of all stand-in hosts, as systemd would be on real ones: runs the programs that recipes hand to it,
 * one folder a host, restarts those that die, and starts them again when it is started itself. Recipes reach it by the
 * script {@code supervise} in their host's folder, which holds that host's token.
 */
public final class Supervisor {

    private static final String SCRIPT = """
            #!/bin/sh
            # supervise start NAME COMMAND ARGUMENT...   or   supervise stop NAME
            set -eu
            verb=$1 name=$2
            shift 2
            method=PUT
            [ "$verb" = stop ] && method=DELETE
            for word in "$@"; do printf '%%s\\n' "$word"; done |
                curl -fsS -m 30 -X "$method" -H 'Authorization: %2$s' --data-binary @- \
            "http://127.0.0.1:%1$d/%3$s/$name"
            """;

    private final Path hosts;
    private final int port;
    private final Map<String, Process> running = new ConcurrentHashMap<>();
    private final Map<String, String> tokens = new ConcurrentHashMap<>();
    private volatile boolean closing;

    private Supervisor(Path hosts, int port) {
        this.hosts = hosts;
        this.port = port;
    }

    /** Arguments: the folder of the hosts, the port, and the hosts' names. */
    public static void main(String[] arguments) throws IOException {
        Supervisor supervisor = new Supervisor(Path.of(arguments[0]).toAbsolutePath(), Integer.parseInt(arguments[1]));
        for (String host : Arrays.asList(arguments).subList(2, arguments.length)) {
            supervisor.prepare(host);
        }
        Runtime.getRuntime().addShutdownHook(new Thread(supervisor::close));
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), supervisor.port),
                0);
        server.createContext("/", supervisor::handle);
        server.start();
    }

    private void prepare(String host) throws IOException {
        Path folder = Files.createDirectories(hosts.resolve(host));
        Files.createDirectories(folder.resolve("programs"));
        String token = Long.toHexString(new java.security.SecureRandom().nextLong())
                + Long.toHexString(new java.security.SecureRandom().nextLong());
        tokens.put(host, token);
        Path script = folder.resolve("supervise");
        Files.writeString(script, SCRIPT.formatted(port, token, host));
        Files.setPosixFilePermissions(script, PosixFilePermissions.fromString("rwx------"));
        try (Stream<Path> programs = Files.list(folder.resolve("programs"))) {
            for (Path program : programs.filter(path -> !path.toString().endsWith(".log")).toList()) {
                start(host, program.getFileName().toString());
            }
        }
    }

    private void handle(HttpExchange exchange) throws IOException {
        String[] parts = exchange.getRequestURI().getPath().split("/");
        boolean known = parts.length == 3 && parts[2].matches("[a-z0-9-]+") && tokens.containsKey(parts[1])
                && tokens.get(parts[1]).equals(exchange.getRequestHeaders().getFirst("Authorization"));
        int status = known ? 204 : 403;
        try {
            if (known && exchange.getRequestMethod().equals("PUT")) {
                Files.write(program(parts[1], parts[2]), exchange.getRequestBody().readAllBytes());
                start(parts[1], parts[2]);
            } else if (known) {
                Files.deleteIfExists(program(parts[1], parts[2]));
                stop(parts[1] + "/" + parts[2]);
            }
        } catch (IOException failed) {
            status = 500;
        }
        exchange.sendResponseHeaders(status, -1);
        exchange.close();
    }

    private Path program(String host, String name) {
        return hosts.resolve(host).resolve("programs").resolve(name);
    }

    private synchronized void start(String host, String name) throws IOException {
        String key = host + "/" + name;
        stop(key);
        List<String> command = Files.readAllLines(program(host, name), StandardCharsets.UTF_8);
        Process process = new ProcessBuilder(command).directory(hosts.resolve(host).toFile()).redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect
                        .appendTo(hosts.resolve(host).resolve("programs").resolve(name + ".log").toFile()))
                .start();
        running.put(key, process);
        process.onExit().thenAcceptAsync(ended -> restart(host, name, ended));
    }

    private void restart(String host, String name, Process ended) {
        if (!closing && running.remove(host + "/" + name, ended) && Files.exists(program(host, name))) {
            try {
                TimeUnit.SECONDS.sleep(1);
                if (!running.containsKey(host + "/" + name)) {
                    start(host, name);
                }
            } catch (IOException failed) {
                System.err.println(host + "/" + name + " cannot be started again: " + failed);
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        }
    }

    private synchronized void stop(String key) {
        Process process = running.remove(key);
        if (process != null) {
            process.destroy();
            try {
                if (!process.waitFor(5, TimeUnit.SECONDS)) {
                    process.destroyForcibly().waitFor();
                }
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        }
    }

    private void close() {
        closing = true;
        List.copyOf(running.keySet()).forEach(this::stop);
    }
}
