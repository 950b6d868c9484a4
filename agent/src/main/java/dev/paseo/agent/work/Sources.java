package dev.paseo.agent.work;

import dev.paseo.agent.lease.DigestedFile;
import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/** The archives of the last few commits, so that the second stage of a run need not fetch what the first one had. */
public final class Sources {

    private static final int KEPT = 4;

    private final Path folder;
    /** The digests of what was fetched in this life of the agent. */
    private final Map<String, String> digests = new ConcurrentHashMap<>();

    public Sources(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    /**
     * Unpacks a commit's files; a commit is named by the digest of what is in it, so that a name never gets old. What
     * was kept is used only with the bytes that came; else it is fetched again.
     */
    void unpack(LeaseClient lease, String commit, Path workspace, Patience.WhileWanted wanted)
            throws IOException, InterruptedException {
        Path kept = folder.resolve(commit + ".tar");
        if (!isAsItCame(commit, kept)) {
            Patience.insist(() -> {
                fetch(lease, commit, kept);
                return true;
            }, wanted);
        }
        try (InputStream archive = Files.newInputStream(kept)) {
            Archives.unpack(archive, workspace);
        }
        Files.setLastModifiedTime(kept, FileTime.from(Instant.now()));
    }

    private boolean isAsItCame(String commit, Path kept) throws IOException {
        String came = digests.get(commit);
        return came != null && Files.exists(kept) && Digests.of(kept).equals(came);
    }

    private void fetch(LeaseClient lease, String commit, Path kept) throws IOException, InterruptedException {
        Path fresh = Files.createTempFile(folder, "arriving", "");
        try {
            try (InputStream archive = lease.source()) {
                digests.put(commit, DigestedFile.write(archive, fresh));
            }
            Files.move(fresh, kept, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(fresh);
        }
        forgetOld();
    }

    private synchronized void forgetOld() throws IOException {
        try (Stream<Path> archives = Files.list(folder)) {
            List<Path> old = archives.filter(path -> path.toString().endsWith(".tar"))
                    .sorted(Comparator.comparing((Path path) -> path.toFile().lastModified()).reversed()).skip(KEPT)
                    .toList();
            for (Path each : old) {
                Files.deleteIfExists(each);
            }
        }
    }
}
