package dev.paseo.agent.watch;

import dev.paseo.agent.check.Checks;
import dev.paseo.agent.lease.DigestedFile;
import dev.paseo.agent.lease.ServiceClient;
import dev.paseo.agent.ssh.RemoteWork;
import dev.paseo.agent.ssh.SshHost;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Watch;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Looks at what is live on the agent's hosts now and then: whether it answers, and whether its files are the version's
 * own.
 */
public final class Watcher implements Runnable {

    private static final Logger LOG = LoggerFactory.getLogger(Watcher.class);
    private static final int FIRST_SECONDS = 5;

    private final ServiceClient service;
    private final Supplier<String> secret;
    private final Renewal renewal;
    private final Path hostFolder;
    private final BooleanSupplier settled;
    private final Checks checks = new Checks();
    /** A file that has not changed since is not read again. */
    private final Map<Path, Known> known = new ConcurrentHashMap<>();

    /** @param stamp size and times of a file, among them the one that nobody can set */
    private record Known(String stamp, String digest) {}

    /** Takes a new secret with a one-time token. */
    public interface Renewal {
        void with(String token) throws IOException, InterruptedException;
    }

    /** @param settled whether all that an earlier life of the agent left running is ended, or gone on with */
    public Watcher(ServiceClient service, Supplier<String> secret, Renewal renewal, Path hostFolder,
            BooleanSupplier settled) {
        this.service = service;
        this.secret = secret;
        this.renewal = renewal;
        this.hostFolder = hostFolder;
        this.settled = settled;
    }

    @Override
    public void run() {
        int pause = FIRST_SECONDS;
        try {
            while (true) {
                try {
                    pause = settled.getAsBoolean() ? lookAround() : 1;
                } catch (IOException | RuntimeException away) {
                    LOG.info("what is live cannot be looked at for the moment: {}", away.getMessage());
                }
                Thread.sleep(pause * 1000L);
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }

    /** How many seconds until the next time. */
    private int lookAround() throws IOException, InterruptedException {
        Watch.Watched watched = service.watched(secret.get());
        if (watched.renewal().isPresent()) {
            renewal.with(watched.renewal().get());
        }
        List<Watch.Seen> seen = new ArrayList<>();
        for (Watch.OnHost host : watched.hosts()) {
            seen.add(look(host));
        }
        service.seen(secret.get(),
                new Watch.Report(seen, hostFolder.toFile().getUsableSpace(), hostFolder.toFile().getTotalSpace()));
        return Math.max(1, watched.everySeconds());
    }

    private Watch.Seen look(Watch.OnHost host) throws InterruptedException {
        Optional<String> failing = Optional.empty();
        for (Assignment.Check check : host.checks()) {
            failing = failing.isPresent() ? failing : checks.once(check);
        }
        Map<String, String> differing = new LinkedHashMap<>();
        try {
            differing.putAll(host.ssh().isPresent() ? overSsh(host) : here(host));
        } catch (IOException unread) {
            failing = failing.or(() -> Optional.of("its files cannot be read: " + unread.getMessage()));
        }
        return new Watch.Seen(host.place(), host.host(), host.deployment(), differing, failing);
    }

    private Map<String, String> here(Watch.OnHost host) throws IOException {
        Map<String, String> differing = new LinkedHashMap<>();
        for (Map.Entry<String, String> file : host.installed().entrySet()) {
            Path path = Path.of(file.getKey().replace("{host.folder}", hostFolder.toString()));
            String digest = Files.isRegularFile(path) ? digest(path) : "";
            if (!digest.equals(file.getValue())) {
                differing.put(path.toString(), digest);
            }
        }
        return differing;
    }

    private static Map<String, String> overSsh(Watch.OnHost host) throws IOException {
        Map<String, String> differing = new LinkedHashMap<>();
        if (host.installed().isEmpty()) {
            return differing;
        }
        try (SshHost at = SshHost.connect(host.ssh().orElseThrow())) {
            for (Map.Entry<String, String> file : host.installed().entrySet()) {
                String path = file.getKey().replace("{host.folder}", at.folder());
                String digest = RemoteWork.digest(at, path);
                if (!digest.equals(file.getValue())) {
                    differing.put(path, digest);
                }
            }
        }
        return differing;
    }

    private String digest(Path path) throws IOException {
        String stamp = Files.getAttribute(path, "unix:ctime") + " " + Files.size(path) + " "
                + Files.getAttribute(path, "unix:ino");
        Known before = known.get(path);
        if (before != null && before.stamp().equals(stamp)) {
            return before.digest();
        }
        try (InputStream in = Files.newInputStream(path)) {
            MessageDigest digest = DigestedFile.sha256();
            new DigestInputStream(in, digest).transferTo(OutputStream.nullOutputStream());
            Known now = new Known(stamp, HexFormat.of().formatHex(digest.digest()));
            known.put(path, now);
            return now.digest();
        }
    }
}
