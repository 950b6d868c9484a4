package dev.paseo.cli.service;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Named services with their addresses and tokens, in {@code paseo/services.json} below the XDG configuration folder.
 * The environment (PASEO_SERVICE, PASEO_TOKEN) goes before the file, options before the environment.
 */
public final class ClientSettings {

    /** Where to ask, and with which token. */
    public record Target(String address, Optional<String> token) {}

    private final Map<String, String> environment;
    private final JsonMapper json;

    public ClientSettings(Map<String, String> environment, JsonMapper json) {
        this.environment = environment;
        this.json = json;
    }

    private Path file() {
        String folder = environment.getOrDefault("XDG_CONFIG_HOME", "");
        Path base = folder.isBlank() ? Path.of(environment.getOrDefault("HOME", "."), ".config") : Path.of(folder);
        return base.resolve("paseo").resolve("services.json");
    }

    /** The service of this name or address; without one, that of the environment, then the one signed in to last. */
    public Target target(Optional<String> wanted) {
        ObjectNode stored = read();
        String name = wanted.or(() -> Optional.ofNullable(environment.get("PASEO_SERVICE")))
                .orElseGet(() -> stored.path("current").asString(""));
        Optional<String> token = Optional.ofNullable(environment.get("PASEO_TOKEN"));
        JsonNode known = stored.path("services").path(name);
        if (!known.isMissingNode()) {
            return new Target(known.path("address").asString(),
                    token.or(() -> Optional.of(known.path("token").asString())));
        }
        if (name.startsWith("http://") || name.startsWith("https://")) {
            for (JsonNode each : stored.path("services")) {
                if (each.path("address").asString().equals(name)) {
                    return new Target(name, token.or(() -> Optional.of(each.path("token").asString())));
                }
            }
            return new Target(name, token);
        }
        throw new Failure(Failure.Kind.USAGE,
                name.isEmpty() ? "No service is known yet; sign in first: paseo sign-in http://HOST:PORT"
                        : "there is no service named " + name + "; sign in to it: paseo sign-in --as " + name
                                + " http://HOST:PORT");
    }

    private ObjectNode read() {
        try {
            return Files.exists(file()) ? (ObjectNode) json.readTree(Files.readString(file()))
                    : json.createObjectNode();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /**
     * Remembers a service and makes it the one that is asked.
     *
     * @return the name of the one that was asked before, where it was another
     */
    public Optional<String> remember(String name, String address, String token) {
        ObjectNode stored = read();
        Optional<String> before = Optional.of(stored.path("current").asString(""))
                .filter(each -> !each.isEmpty() && !each.equals(name));
        stored.put("current", name);
        stored.withObject("/services").putObject(name).put("address", address).put("token", token);
        write(stored);
        return before;
    }

    public void forget(String address) {
        ObjectNode stored = read();
        ObjectNode services = stored.withObject("/services");
        List<String> names = services.properties().stream()
                .filter(entry -> entry.getValue().path("address").asString().equals(address)).map(Map.Entry::getKey)
                .toList();
        if (!names.isEmpty()) {
            names.forEach(services::remove);
            write(stored);
        }
    }

    private void write(ObjectNode stored) {
        try {
            Path folder = file().getParent();
            Files.createDirectories(folder);
            Path fresh = Files.createTempFile(folder, "services", "",
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(fresh, json.writerWithDefaultPrettyPrinter().writeValueAsString(stored));
            Files.move(fresh, file(), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException failed) {
            throw new UncheckedIOException("the settings cannot be written", failed);
        }
    }
}
