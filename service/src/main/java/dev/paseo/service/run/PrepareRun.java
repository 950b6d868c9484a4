package dev.paseo.service.run;

import dev.paseo.core.run.RunEvent;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.source.Mirror;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.springframework.stereotype.Component;

/** Pins a run's commit and keeps the files that its recipe brings; then its stages may start. */
@Component
class PrepareRun implements EffectHandler {

    static final String KIND = "prepare-run";
    private static final long LARGEST_BUNDLE = 1_000_000_000;

    private final Runs runs;
    private final Lines lines;
    private final RunMapper mapper;
    private final KeptBytes bytes;
    private final ServiceClock clock;
    private final Path scratch;

    /** Where a run's files go. */
    @Component
    record Keeping(KeptBytes bytes, ServiceClock clock) {}

    PrepareRun(Runs runs, Lines lines, RunMapper mapper, Keeping keeping, Settings settings) {
        this.runs = runs;
        this.lines = lines;
        this.mapper = mapper;
        this.bytes = keeping.bytes();
        this.clock = keeping.clock();
        this.scratch = settings.data().resolve("scratch");
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void perform(String body) {
        long id = Long.parseLong(body);
        Run run = runs.byId(id);
        if (!run.commitId().isEmpty()) {
            bring(run);
        }
        lines.prepared(run);
    }

    private void bring(Run run) {
        Mirror mirror = runs.mirror(run);
        mirror.pin("runs/" + run.id(), run.commitId());
        List<String> brings = runs.file(run).deployment().map(Recipe::bring).orElse(List.of());
        if (!brings.isEmpty() && run.arrivedVersionId() == null) {
            mapper.bundle(run.id(), keep(mirror, run.commitId(), brings));
        }
    }

    private String keep(Mirror mirror, String commit, List<String> patterns) {
        try {
            Path archive = Files.createTempFile(scratch, "bundle", ".tar");
            try {
                try (OutputStream out = Files.newOutputStream(archive)) {
                    mirror.archive(commit, patterns, out);
                } catch (Mirror.NoSuchFiles missing) {
                    throw new Effects.GivesUp("deployment.bring: " + missing.getMessage());
                }
                try (InputStream in = Files.newInputStream(archive)) {
                    ByteStore.Kept kept = bytes.keep(in, LARGEST_BUNDLE, clock.now());
                    return kept.digest();
                }
            } finally {
                Files.delete(archive);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        runs.apply(Long.parseLong(body), new RunEvent.PreparationFailed(error));
    }
}
