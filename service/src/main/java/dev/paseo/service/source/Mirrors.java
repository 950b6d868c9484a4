package dev.paseo.service.source;

import dev.paseo.service.settings.Settings;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** The mirrors of all repositories, and which repositories may be mirrored. */
@Component
public class Mirrors {

    private final Settings settings;
    private final Map<Long, Mirror> mirrors = new ConcurrentHashMap<>();

    Mirrors(Settings settings) {
        this.settings = settings;
    }

    /** The mirror of a repository, kept under the first component that came with it. */
    public Mirror of(long first, String repository, Supplier<SourceAccess> credentials) {
        return mirrors.compute(first, (id, known) -> known != null && known.isOf(repository) ? known : new Mirror(settings.data().resolve("mirrors").toAbsolutePath().resolve(id + ".git"), repository, credentials));
    }

    /** A mirror of a repository that no component has yet, to look at what is in it. */
    public Mirror glance(String repository, SourceAccess credentials) {
        allow(repository);
        String name = UUID.nameUUIDFromBytes(repository.getBytes(StandardCharsets.UTF_8)).toString();
        return new Mirror(settings.data().resolve("glances").toAbsolutePath().resolve(name + ".git"), repository, () -> credentials);
    }

    public void allow(String repository) {
        SourceAccess.allow(settings, repository);
    }
}
