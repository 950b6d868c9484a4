package dev.paseo.service.source;

import dev.paseo.service.reach.Reach;
import dev.paseo.service.settings.Settings;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** The mirrors of all repositories, and which repositories may be mirrored. */
@Component
public class Mirrors {

    private static final int HTTPS = 443;

    private final Settings settings;
    private final Reach reach;
    private final Map<Long, Mirror> mirrors = new ConcurrentHashMap<>();

    Mirrors(Settings settings, Reach reach) {
        this.settings = settings;
        this.reach = reach;
    }

    /** The mirror of a repository, kept under the first component that came with it. */
    public Mirror of(long first, String repository, Supplier<SourceAccess> credentials) {
        return mirrors.compute(first,
                (id, known) -> known != null && known.isOf(repository) ? known
                        : new Mirror(settings.data().resolve("mirrors").toAbsolutePath().resolve(id + ".git"),
                                repository, credentials, () -> pinned(repository)));
    }

    /** A mirror of a repository that no component has yet, to look at what is in it. */
    public Mirror glance(String repository, SourceAccess credentials) {
        allow(repository);
        String name = UUID.nameUUIDFromBytes(repository.getBytes(StandardCharsets.UTF_8)).toString();
        return new Mirror(settings.data().resolve("glances").toAbsolutePath().resolve(name + ".git"), repository,
                () -> credentials, () -> pinned(repository));
    }

    /** Refuses a repository from which components may not come. */
    public void allow(String repository) {
        SourceAccess.allow(settings, repository);
        pinned(repository);
    }

    /** The addresses that were looked at, in the form in which git takes them, so that no others are asked. */
    private Optional<String> pinned(String repository) {
        if (repository.startsWith("file:")) {
            // One that is gone is told by git.
            if (Files.exists(Path.of(URI.create(repository)))) {
                SourceAccess.allow(settings, repository);
            }
            return Optional.empty();
        }
        List<InetAddress> addresses = reach.allow(Reach.Kind.SOURCE, repository);
        URI address = URI.create(repository);
        return addresses.isEmpty() || !repository.startsWith("https:") ? Optional.empty()
                : Optional.of(address.getHost() + ":" + (address.getPort() < 0 ? HTTPS : address.getPort()) + ":"
                        + addresses.stream().map(each -> each instanceof Inet6Address
                                ? "[" + each.getHostAddress() + "]" : each.getHostAddress())
                                .collect(Collectors.joining(",")));
    }
}
