package dev.paseo.service.run;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.archive.TarReader;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageState;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Variants;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunMapper.RunRow;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** The files of a run's stages: the checkout, what goes from stage to stage, artifacts, reports, and what is reused. */
@Component
class RunFiles implements WorkOwner.StageFiles {

    private static final TypeReference<List<String>> PATHS = new TypeReference<>() {};
    private static final int MOST_FILES = 100_000;

    private final Runs runs;
    private final Tables tables;
    private final KeptBytes bytes;
    private final Evidence evidence;
    private final Writing writing;

    /** Where rows are. */
    @Component
    record Tables(RunMapper runs, StageFileMapper files, Takes takes) {}

    /** What writing needs. */
    @Component
    record Writing(Json json, ServiceClock clock, Transactions transactions) {}

    RunFiles(Runs runs, Tables tables, KeptBytes bytes, Evidence evidence, Writing writing) {
        this.runs = runs;
        this.tables = tables;
        this.bytes = bytes;
        this.evidence = evidence;
        this.writing = writing;
    }

    private RunRow run(Work work) {
        return runs.byId(Objects.requireNonNull(work.runId()));
    }

    private static long stageId(Work work) {
        return Objects.requireNonNull(work.stageId());
    }

    private PipelineFile.Stage stage(RunRow run, Work work) {
        return runs.file(run).stage(StageWork.key(work).name()).orElseThrow();
    }

    @Override
    public void source(Work work, OutputStream out) {
        RunRow run = run(work);
        if (run.commitId().isEmpty()) {
            nothing(out);
            return;
        }
        runs.mirror(run).archive(run.commitId(), List.of(), out);
    }

    /** A component without a repository has workspaces with nothing in them but what is taken. */
    private static void nothing(OutputStream out) {
        try {
            TarArchiveOutputStream archive = new TarArchiveOutputStream(out);
            archive.finish();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    @Override
    public void output(Work work, String name, String fileName, ByteStore.Kept kept) {
        RunRow run = run(work);
        PipelineFile.Stage stage = stage(run, work);
        Map<String, String> variant = StageWork.variant(stage, work);
        boolean wanted = stage.keep().keySet().stream()
                .anyMatch(keep -> Variants.fill(keep, variant, true).equals(name));
        if (!wanted || fileName.isBlank() || fileName.contains("/") || fileName.length() > 255) {
            throw Refusal.invalid("/name",
                    "stage " + stage.name() + " keeps no artifact named " + name + " from a file " + fileName);
        }
        if (tables.runs().addOutput(run.id(), stageId(work), name, fileName, kept.digest(), kept.size()) == 0) {
            tables.runs().outputs(run.id()).stream()
                    .filter(output -> output.name().equals(name) && !output.digest().equals(kept.digest()))
                    .findFirst().ifPresent(other -> {
                        throw Refusal.conflict("the artifact " + name + " is there with other bytes: " + other.digest()
                                + ", now " + kept.digest());
                    });
        }
        bytes.refer(kept.digest(), "run", run.id());
    }

    /** No two stages of a run leave the same path: which one a later stage finds would be chance. */
    @Override
    public void files(Work work, ByteStore.Kept kept) {
        RunRow run = run(work);
        List<String> paths = paths(kept.digest());
        writing.transactions().run(() -> {
            runs.lock(run.id());
            Map<String, String> others = new HashMap<>();
            tables.files().files(run.id()).stream()
                    .filter(row -> row.stageId() != stageId(work) && !isSameStage(row, work))
                    .forEach(row -> writing.json().read(row.paths(), PATHS)
                            .forEach(path -> others.put(path, new StageKey(row.stage(), row.variant()).toString())));
            paths.stream().filter(others::containsKey).findFirst().ifPresent(path -> {
                throw Refusal.unprocessable("Two stages leave one file",
                        "files: " + path + " is left by " + others.get(path) + " as well");
            });
            tables.files().add(stageId(work), run.id(), kept.digest(), kept.size(), writing.json().write(paths));
            bytes.refer(kept.digest(), "run", run.id());
        });
    }

    private static boolean isSameStage(StageFileMapper.FilesRow row, Work work) {
        return StageWork.key(work).equals(new StageKey(row.stage(), row.variant()));
    }

    private List<String> paths(String digest) {
        List<String> paths = new ArrayList<>();
        try (InputStream in = bytes.openUnchecked(digest); TarReader tar = new TarReader(in)) {
            for (Optional<TarArchiveEntry> next = tar.next(); next.isPresent(); next = tar.next()) {
                TarArchiveEntry entry = next.get();
                String name = entry.getName();
                if (name.startsWith("/") || List.of(name.split("/")).contains("..")) {
                    throw Refusal.unprocessable("The archive is not one of a workspace",
                            "files: " + name + " lies outside the workspace");
                }
                if (paths.size() >= MOST_FILES) {
                    throw Refusal.unprocessable("Too many files",
                            "files: more than " + MOST_FILES + " files for the stages after this one");
                }
                if (!entry.isDirectory()) {
                    paths.add(name);
                }
            }
        } catch (IOException broken) {
            throw Refusal.unprocessable("The archive cannot be read", "files: it " + broken.getMessage());
        }
        return paths;
    }

    /** What the stages that a stage waits for, directly or not, left for it. */
    List<Assignment.Input> inputs(RunRow run, List<StageState> stages, StageKey key) {
        Map<StageKey, StageState> byKey = new HashMap<>();
        stages.forEach(stage -> byKey.put(stage.key(), stage));
        Set<StageKey> before = new LinkedHashSet<>();
        List<StageKey> left = new ArrayList<>(waits(byKey, key));
        while (!left.isEmpty()) {
            StageKey next = left.removeLast();
            if (before.add(next)) {
                left.addAll(waits(byKey, next));
            }
        }
        return tables.files().files(run.id()).stream()
                .filter(row -> before.contains(new StageKey(row.stage(), row.variant())))
                .map(row -> new Assignment.Input(new StageKey(row.stage(), row.variant()).toString(), row.digest()))
                .toList();
    }

    private static Set<StageKey> waits(Map<StageKey, StageState> stages, StageKey key) {
        StageState stage = stages.get(key);
        Set<StageKey> all = new HashSet<>(stage.waits().after());
        all.addAll(stage.waits().afterAny());
        all.addAll(stage.waits().ifFailed());
        return all;
    }

    List<Assignment.Take> takes(RunRow run, String stage) {
        return tables.takes().of(run.id(), stage).stream()
                .map(row -> new Assignment.Take(row.component(), row.version(), row.intoFolder(),
                        new Assignment.Artifact(row.artifact(), row.fileName(), row.digest(), row.size())))
                .toList();
    }

    @Override
    public void report(Work work, String kind, ByteStore.Kept kept) {
        StageKey key = StageWork.key(work);
        evidence.take(
                new Evidence.Origin(Objects.requireNonNull(work.runId()), stageId(work), key.name(), key.variant()),
                kind, kept.digest());
    }

    /** Trusted branches share what they keep; every other branch has its own, and may read theirs. */
    private static String scope(RunRow run) {
        return run.trusted() ? "" : run.branch();
    }

    private static String name(Work work, PipelineFile.Stage stage) {
        return Tokens
                .hash(StageWork.key(work) + "\n" + stage.reuse().map(PipelineFile.Reuse::folders).orElse(List.of()));
    }

    @Override
    public Optional<WorkOwner.Reused> reused(Work work, String key) {
        RunRow run = run(work);
        return tables.files().reused(run.componentId(), scope(run), name(work, stage(run, work)), key).map(row -> {
            boolean exact = row.keyDigest().equals(key);
            tables.runs().reused(stageId(work),
                    (exact ? "as kept by " : "an older state, kept by ") + row.run() + ", " + row.size() + " bytes");
            return new WorkOwner.Reused(row.digest(), row.size(), exact, row.run());
        });
    }

    @Override
    public void reuse(Work work, String key, ByteStore.Kept kept) {
        if (!key.matches("[0-9a-f]{64}")) {
            throw Refusal.invalid("/key", "a key is a SHA-256 in hexadecimal");
        }
        RunRow run = run(work);
        tables.files().keep(run.componentId(), scope(run), name(work, stage(run, work)), key, kept.digest(),
                kept.size(), run.id(), writing.clock().now());
        bytes.refer(kept.digest(), "run", run.id());
    }
}
