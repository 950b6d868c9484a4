package dev.paseo.e2e;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The registry server of Debian's packages, on loopback, and an ordinary push to it. */
final class Registry implements AutoCloseable {

    private static final HttpClient HTTP = HttpClient.newHttpClient();

    private final Process process;
    private final String address;

    Registry(Path folder, int port) throws IOException {
        Files.createDirectories(folder);
        Path config = folder.resolve("registry.yml");
        Files.writeString(config, """
                version: 0.1
                log: {level: error}
                storage:
                  filesystem: {rootdirectory: "%s"}
                  delete: {enabled: true}
                http: {addr: "127.0.0.1:%d"}
                """.formatted(folder.resolve("store"), port));
        process = new ProcessBuilder("docker-registry", "serve", config.toString()).redirectErrorStream(true)
                .redirectOutput(folder.resolve("registry.log").toFile()).start();
        address = "http://127.0.0.1:" + port;
        Await.until("the registry answers", () -> {
            try {
                return send(HttpRequest.newBuilder(URI.create(address + "/v2/")).GET()).statusCode() == 200;
            } catch (IOException notYet) {
                return false;
            }
        });
    }

    String address() {
        return address;
    }

    /** Pushes a file as a titled layer under a tag; the manifest's digest. */
    String push(String repository, String tag, String title, String content) throws IOException {
        byte[] layer = content.getBytes(StandardCharsets.UTF_8);
        blob(repository, layer);
        blob(repository, "{}".getBytes(StandardCharsets.UTF_8));
        String manifest = """
                {"schemaVersion":2,"mediaType":"application/vnd.oci.image.manifest.v1+json",\
                "artifactType":"application/vnd.park.archive",
                "config":{"mediaType":"application/vnd.oci.empty.v1+json","digest":"%s","size":2},
                "layers":[{"mediaType":"application/gzip","digest":"%s","size":%d,"annotations":{\
                "org.opencontainers.image.title":"%s"}}]}"""
                .formatted(sha256("{}".getBytes(StandardCharsets.UTF_8)), sha256(layer), layer.length, title);
        HttpResponse<String> answer = send(
                HttpRequest.newBuilder(URI.create(address + "/v2/" + repository + "/manifests/" + tag))
                        .header("Content-Type", "application/vnd.oci.image.manifest.v1+json")
                        .PUT(HttpRequest.BodyPublishers.ofString(manifest)));
        if (answer.statusCode() != 201) {
            throw new IOException(answer.statusCode() + " " + answer.body());
        }
        return sha256(manifest.getBytes(StandardCharsets.UTF_8));
    }

    private void blob(String repository, byte[] bytes) throws IOException {
        HttpResponse<String> begun = send(
                HttpRequest.newBuilder(URI.create(address + "/v2/" + repository + "/blobs/uploads/"))
                        .POST(HttpRequest.BodyPublishers.noBody()));
        String location = begun.headers().firstValue("location").orElseThrow();
        URI to = URI.create((location.startsWith("http") ? location : address + location)
                + (location.contains("?") ? "&" : "?") + "digest=" + sha256(bytes));
        send(HttpRequest.newBuilder(to).header("Content-Type", "application/octet-stream")
                .PUT(HttpRequest.BodyPublishers.ofByteArray(bytes)));
    }

    private static HttpResponse<String> send(HttpRequest.Builder request) throws IOException {
        try {
            return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw new IOException(stop);
        }
    }

    static String sha256(byte[] bytes) {
        try {
            return "sha256:" + HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    @Override
    public void close() {
        process.destroy();
    }
}
