package dev.paseo.service.source;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** The mirrors of all components, and which repositories may be mirrored. */
@Component
public class Mirrors {


    private final Settings settings;
    private final Map<Long, Mirror> mirrors = new ConcurrentHashMap<>();

    Mirrors(Settings settings) {
        this.settings = settings;
    }

    public Mirror of(long component, String repository) {
        return mirrors.computeIfAbsent(component,
                id -> new Mirror(settings.data().resolve("mirrors").toAbsolutePath().resolve(id + ".git"), repository));
    }

    /** A mirror of a repository that no component has yet, to look at what is in it. */
    public Mirror glance(String repository) {
        allow(repository);
        String name = UUID.nameUUIDFromBytes(repository.getBytes(java.nio.charset.StandardCharsets.UTF_8)).toString();
        return new Mirror(settings.data().resolve("glances").toAbsolutePath().resolve(name + ".git"), repository);
    }

    /** Refuses a repository that is not a folder below an allowed one, links resolved. */
    public void allow(String repository) {
        if (!repository.startsWith("file:///")) {
            throw Refusal.invalid("/repository", "a repository is given as file:///path; got '" + repository + "'");
        }
        try {
            Path real = Path.of(URI.create(repository)).toRealPath();
            for (Path allowed : settings.allowedSources()) {
                if (Files.isDirectory(allowed) && real.startsWith(allowed.toRealPath())) {
                    return;
                }
            }
        } catch (IOException | IllegalArgumentException missing) {
            throw Refusal.invalid("/repository", "there is no folder " + repository);
        }
        throw Refusal.notAllowed(repository + " is not below a folder from which components may come; "
                + "an operator sets them in paseo.allowed-sources");
    }
}
