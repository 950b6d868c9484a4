package dev.paseo.service.run;

import dev.paseo.core.text.Size;
import dev.paseo.core.run.StageKey;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** What the stages of runs leave behind: artifacts, files for the stages after them, folders for runs after them. */
@Component
public class RunOutputs {

    private static final TypeReference<List<String>> PATHS = new TypeReference<>() {};

    private final RunMapper runs;
    private final StageFileMapper mapper;
    private final KeptBytes bytes;
    private final Json json;
    private final ServiceClock clock;

    RunOutputs(RunMapper runs, StageFileMapper mapper, KeptBytes bytes, Json json, ServiceClock clock) {
        this.runs = runs;
        this.mapper = mapper;
        this.bytes = bytes;
        this.json = json;
        this.clock = clock;
    }

    /** Bytes that are kept already. */
    public record Bytes(String digest, long size) {}

    /** The files that the newest attempt of a stage left, with their paths in the workspace. */
    public record Left(long stageId, StageKey stage, Bytes bytes, List<String> paths) {}

    /**
     * Keeps an artifact.
     *
     * @param stage who made it; nobody where it is the commit's own files
     * @throws Refusal conflict, where the run has an artifact of that name with other bytes
     */
    public void artifact(Run run, @Nullable Long stage, String name, String fileName, Bytes kept) {
        if (runs.addOutput(run.id(), stage, name, fileName, kept.digest(), kept.size()) == 0) {
            runs.outputs(run.id()).stream()
                    .filter(output -> output.name().equals(name) && !output.digest().equals(kept.digest()))
                    .findFirst().ifPresent(other -> {
                        throw Refusal.conflict("The artifact " + name + " is there with other bytes: " + other.digest()
                                + ", now " + kept.digest());
                    });
        }
        bytes.refer(kept.digest(), "run", run.id());
    }

    /** The files that stages of the run left, in the order of its stages. */
    public List<Left> left(long run) {
        return mapper.files(run).stream().map(row -> new Left(row.stageId(), new StageKey(row.stage(), row.variant()),
                new Bytes(row.digest(), row.size()), json.read(row.paths(), PATHS))).toList();
    }

    /** Keeps the files that a stage leaves; those of an earlier attempt give way. */
    public void leave(Run run, long stage, Bytes kept, List<String> paths) {
        mapper.add(stage, run.id(), kept.digest(), kept.size(), json.write(paths));
        bytes.refer(kept.digest(), "run", run.id());
    }

    /** What was kept for reuse. */
    public record FoundOutput(Bytes bytes, boolean exact, String run) {}

    /** What was kept under the key, else the newest under another of the same name; the stage says from where it is. */
    public Optional<FoundOutput> reused(Run run, long stage, String name, String key) {
        return mapper.reused(run.componentId(), scope(run), name, key).map(row -> {
            boolean exact = row.keyDigest().equals(key);
            runs.reused(stage,
                    (exact ? "as kept by " : "an older state, kept by ") + row.run() + ", " + Size.words(row.size()));
            return new FoundOutput(new Bytes(row.digest(), row.size()), exact, row.run());
        });
    }

    /** Keeps for reuse what a stage has; the first under a key stays. */
    public void reuse(Run run, String name, String key, Bytes kept) {
        mapper.keep(run.componentId(), scope(run), name, key, kept.digest(), kept.size(), run.id(), clock.now());
        bytes.refer(kept.digest(), "run", run.id());
    }

    /** Trusted branches share what they keep; every other branch has its own, and may read theirs. */
    private static String scope(Run run) {
        return run.trusted() ? "" : run.branch();
    }
}
