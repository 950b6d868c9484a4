package dev.paseo.service.run;

import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.source.Mirror;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Files of a commit that are kept as they are: those that a recipe brings, and those of which nothing is built. */
@Component
class CommitFiles {

    private static final long LARGEST_BUNDLE = 1_000_000_000;
    private static final long LARGEST_TREE = 1_000_000_000;

    private final RunMapper mapper;
    private final RunOutputs outputs;
    private final Quotas quotas;
    private final Keeping keeping;
    private final Path scratch;

    /** Where they go. */
    @Component
    record Keeping(KeptBytes bytes, ServiceClock clock) {}

    CommitFiles(RunMapper mapper, RunOutputs outputs, Quotas quotas, Keeping keeping, Settings settings) {
        this.mapper = mapper;
        this.outputs = outputs;
        this.quotas = quotas;
        this.keeping = keeping;
        this.scratch = settings.data().resolve("scratch");
    }

    /** Something that writes an archive. */
    private interface Archive {
        void write(OutputStream out);
    }

    /** Keeps the files that its recipe brings. */
    void bring(Run run, Mirror mirror, List<String> patterns) {
        if (!patterns.isEmpty()) {
            mapper.bundle(run.id(), keep("deployment.bring", LARGEST_BUNDLE,
                    out -> mirror.archive(run.commitId(), patterns, out)).digest());
        }
    }

    /** Keeps the commit's files, or those of one folder, as the run's artifact. */
    void tree(Run run, Mirror mirror, Optional<String> folder) {
        long room = quotas.room(run.componentId(), 0);
        ByteStore.StoredBytes kept = keep("tree", Math.min(LARGEST_TREE, room),
                out -> mirror.tree(run.commitId(), folder, out));
        outputs.artifact(run, null, PipelineFile.TREE, PipelineFile.TREE + ".tar",
                new RunOutputs.Bytes(kept.digest(), kept.size()));
        quotas.kept(run.componentId(), kept.size());
    }

    private ByteStore.StoredBytes keep(String key, long most, Archive archive) {
        try {
            Path file = Files.createTempFile(scratch, "commit", ".tar");
            try {
                try (OutputStream out = Files.newOutputStream(file)) {
                    archive.write(out);
                } catch (Mirror.NoSuchFiles missing) {
                    throw new Effects.GivesUp(key + ": " + missing.getMessage());
                }
                try (InputStream in = Files.newInputStream(file)) {
                    return keeping.bytes().keep(in, most, keeping.clock().now());
                }
            } finally {
                Files.delete(file);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
