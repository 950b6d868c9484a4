package dev.paseo.service.stage;

import dev.paseo.service.run.RunOutputs;
import dev.paseo.service.run.Runs;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.archive.TarReader;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageState;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Variants;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.Run;
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
public class RunFiles implements WorkOwner.StageFiles {

    private static final TypeReference<List<String>> PATHS = new TypeReference<>() {};
    private static final int MOST_FILES = 100_000;

    private final Runs runs;
    private final RunOutputs outputs;
    private final KeptBytes bytes;
    private final Evidence evidence;
    private final Transactions transactions;

    RunFiles(Runs runs, RunOutputs outputs, KeptBytes bytes, Evidence evidence, Transactions transactions) {
        this.runs = runs;
        this.outputs = outputs;
        this.bytes = bytes;
        this.evidence = evidence;
        this.transactions = transactions;
    }

    private Run run(Work work) {
        return runs.byId(Objects.requireNonNull(work.runId()));
    }

    private static long stageId(Work work) {
        return Objects.requireNonNull(work.stageId());
    }

    private PipelineFile.Stage stage(Run run, Work work) {
        return runs.file(run).stage(StageWork.key(work).name()).orElseThrow();
    }

    @Override
    public void source(Work work, OutputStream out) {
        Run run = run(work);
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
    public void output(Work work, String name, String fileName, ByteStore.StoredBytes kept) {
        Run run = run(work);
        PipelineFile.Stage stage = stage(run, work);
        Map<String, String> variant = StageWork.variant(stage, work);
        boolean wanted = stage.keep().keySet().stream()
                .anyMatch(keep -> Variants.fill(keep, variant, true).equals(name));
        if (!wanted || fileName.isBlank() || fileName.contains("/") || fileName.length() > 255) {
            throw Refusal.invalid("/name",
                    "Stage " + stage.name() + " keeps no artifact named " + name + " from a file " + fileName);
        }
        outputs.artifact(run, stageId(work), name, fileName, bytes(kept));
    }

    private static RunOutputs.Bytes bytes(ByteStore.StoredBytes kept) {
        return new RunOutputs.Bytes(kept.digest(), kept.size());
    }

    /** No two stages of a run leave the same path: which one a later stage finds would be chance. */
    @Override
    public void files(Work work, ByteStore.StoredBytes kept) {
        Run run = run(work);
        List<String> paths = paths(kept.digest());
        transactions.run(() -> {
            runs.lock(run.id());
            Map<String, String> others = new HashMap<>();
            outputs.left(run.id()).stream()
                    .filter(left -> left.stageId() != stageId(work) && !left.stage().equals(StageWork.key(work)))
                    .forEach(left -> left.paths().forEach(path -> others.put(path, left.stage().toString())));
            paths.stream().filter(others::containsKey).findFirst().ifPresent(path -> {
                throw Refusal.unprocessable("Two stages leave one file",
                        "files: " + path + " is left by " + others.get(path) + " as well");
            });
            outputs.leave(run, stageId(work), bytes(kept), paths);
        });
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
    List<Assignment.Input> inputs(Run run, List<StageState> stages, StageKey key) {
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
        return outputs.left(run.id()).stream().filter(each -> before.contains(each.stage()))
                .map(each -> new Assignment.Input(each.stage().toString(), each.bytes().digest())).toList();
    }

    private static Set<StageKey> waits(Map<StageKey, StageState> stages, StageKey key) {
        StageState stage = stages.get(key);
        Set<StageKey> all = new HashSet<>(stage.waits().after());
        all.addAll(stage.waits().afterAny());
        all.addAll(stage.waits().ifFailed());
        return all;
    }

    @Override
    public void report(Work work, String kind, ByteStore.StoredBytes kept) {
        StageKey key = StageWork.key(work);
        evidence.take(
                new Evidence.Origin(Objects.requireNonNull(work.runId()), stageId(work), key.name(), key.variant()),
                kind, kept.digest());
    }

    private static String name(Work work, PipelineFile.Stage stage) {
        return Sha256
                .hex(StageWork.key(work) + "\n" + stage.reuse().map(PipelineFile.Reuse::folders).orElse(List.of()));
    }

    @Override
    public Optional<WorkOwner.Reused> reused(Work work, String key) {
        Run run = run(work);
        return outputs.reused(run, stageId(work), name(work, stage(run, work)), key)
                .map(kept -> new WorkOwner.Reused(kept.bytes().digest(), kept.bytes().size(), kept.exact(),
                        kept.run()));
    }

    @Override
    public void reuse(Work work, String key, ByteStore.StoredBytes kept) {
        if (!key.matches("[0-9a-f]{64}")) {
            throw Refusal.invalid("/key", "A key is a SHA-256 in hexadecimal");
        }
        Run run = run(work);
        outputs.reuse(run, name(work, stage(run, work)), key, bytes(kept));
    }
}
