package dev.paseo.service.run;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageOutcome;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunMapper.RunRow;
import dev.paseo.service.run.RunMapper.StageRow;
import dev.paseo.service.secret.Secrets;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The work of stages. */
@Component
class StageWork implements WorkOwner {

    private final Runs runs;
    private final RunMapper mapper;
    private final Secrets secrets;
    private final KeptBytes bytes;

    StageWork(Runs runs, RunMapper mapper, Secrets secrets, KeptBytes bytes) {
        this.runs = runs;
        this.mapper = mapper;
        this.secrets = secrets;
        this.bytes = bytes;
    }

    @Override
    public Set<Assignment.Kind> kinds() {
        return Set.of(Assignment.Kind.STAGE);
    }

    private static long run(Work work) {
        return Objects.requireNonNull(work.runId());
    }

    private StageRow stage(Work work) {
        return mapper.stage(Objects.requireNonNull(work.stageId()));
    }

    private static StageKey key(StageRow stage) {
        return new StageKey(stage.name(), stage.variant());
    }

    @Override
    public void lock(Work work) {
        runs.lock(run(work));
    }

    @Override
    public boolean taken(Work work, String agent) {
        StageRow stage = stage(work);
        return runs.apply(run(work), new RunEvent.StageTaken(key(stage), stage.attempt())).isEmpty();
    }

    @Override
    public void ended(Work work, Lease.Outcome outcome, String reason, boolean touched) {
        StageRow stage = stage(work);
        StageOutcome end = switch (outcome) {
            case PASSED -> new StageOutcome.Passed();
            case FAILED -> new StageOutcome.Failed(reason);
            case STOPPED -> new StageOutcome.Stopped();
            case LOST -> new StageOutcome.Lost(reason);
        };
        runs.apply(run(work), new RunEvent.StageEnded(key(stage), stage.attempt(), end));
    }

    @Override
    public Assignment assignment(Work work) {
        RunRow run = runs.byId(run(work));
        String name = stage(work).name();
        PipelineFile.Stage stage = runs.file(run).stages().stream().filter(each -> each.name().equals(name)).findFirst().orElseThrow();
        List<Assignment.Step> steps = new ArrayList<>();
        for (PipelineFile.Step step : stage.steps()) {
            steps.add(new Assignment.Step(steps.size() + 1, step.name(), step.command(), step.timeout().toSeconds()));
        }
        List<Assignment.Keep> keep = stage.keep().entrySet().stream().map(entry -> new Assignment.Keep(entry.getKey(), entry.getValue())).toList();
        Map<String, String> values = run.trusted()
                ? secrets.values(secrets.revisions(opened(stage.secrets(), run), run.componentId(), 0)) : Map.of();
        return new Assignment(work.id(), 0, "", 0, Assignment.Kind.STAGE, variables(run), values, steps, keep, true,
                Optional.empty(), List.of(), List.of());
    }

    private List<String> opened(List<String> names, RunRow run) {
        List<String> missing = secrets.missing(names, run.componentId(), 0);
        return names.stream().filter(name -> !missing.contains(name)).toList();
    }

    private static Map<String, String> variables(RunRow run) {
        Map<String, String> variables = new LinkedHashMap<>();
        variables.put("PASEO_COMPONENT", run.component());
        variables.put("PASEO_RUN", run.component() + "#" + run.number());
        variables.put("PASEO_VERSION", run.versionNumber());
        variables.put("PASEO_COMMIT", run.commitId());
        variables.put("PASEO_BRANCH", run.branch());
        return variables;
    }

    @Override
    public void source(Work work, OutputStream out) {
        RunRow run = runs.byId(run(work));
        runs.mirror(run).archive(run.commitId(), List.of(), out);
    }

    @Override
    public void output(Work work, String name, String fileName, ByteStore.Kept kept) {
        StageRow stage = stage(work);
        boolean wanted = assignment(work).keep().stream().anyMatch(keep -> keep.name().equals(name));
        if (!wanted || fileName.isBlank() || fileName.contains("/") || fileName.length() > 255) {
            throw Refusal.invalid("/name", "stage " + stage.name() + " keeps no artifact named " + name + " from a file " + fileName);
        }
        if (mapper.addOutput(run(work), stage.id(), name, fileName, kept.digest(), kept.size()) == 0) {
            mapper.outputs(run(work)).stream().filter(output -> output.name().equals(name) && !output.digest().equals(kept.digest()))
                    .findFirst().ifPresent(other -> {
                        throw Refusal.conflict("the artifact " + name + " is there with other bytes: " + other.digest() + ", now " + kept.digest());
                    });
        }
        bytes.refer(kept.digest(), "run", run(work));
    }
}
