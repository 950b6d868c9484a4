package dev.paseo.service.stage;

import dev.paseo.service.run.Takes;
import dev.paseo.service.run.Runs;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageOutcome;
import dev.paseo.core.run.StageState;
import dev.paseo.language.condition.Condition;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Variants;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.run.Run;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The work of stages. */
@Component
public class StageWork implements WorkOwner {

    private final Runs runs;
    private final RunFiles files;
    private final Secrets secrets;
    private final Evidence evidence;
    private final Takes takes;

    StageWork(Runs runs, RunFiles files, Secrets secrets, Evidence evidence, Takes takes) {
        this.runs = runs;
        this.files = files;
        this.secrets = secrets;
        this.evidence = evidence;
        this.takes = takes;
    }

    @Override
    public Set<Assignment.Kind> kinds() {
        return Set.of(Assignment.Kind.STAGE);
    }

    private static long run(Work work) {
        return Objects.requireNonNull(work.runId());
    }

    static StageKey key(Work work) {
        return new StageKey(Objects.requireNonNull(work.stage()), Objects.requireNonNull(work.variant()));
    }

    @Override
    public Held lock(Work work) {
        Run run = runs.lock(run(work));
        int attempt = Objects.requireNonNull(work.attempt());
        return new Held() {
            @Override
            public boolean taken(String agent) {
                return runs.apply(run, new RunEvent.StageTaken(key(work), attempt)).isEmpty();
            }

            @Override
            public void ended(Lease.Outcome outcome, String reason, boolean touched) {
                runs.apply(run, new RunEvent.StageEnded(key(work), attempt, switch (outcome) {
                    case PASSED -> passed(run, work);
                    case FAILED -> new StageOutcome.Failed(reason);
                    case STOPPED -> new StageOutcome.Stopped();
                    case LOST -> new StageOutcome.Lost(reason);
                }));
            }
        };
    }

    private StageOutcome passed(Run run, Work work) {
        PipelineFile.Conditions conditions = stage(run, work).conditions();
        long stage = Objects.requireNonNull(work.stageId());
        StageOutcome told = conditions.onFailures().outcome(evidence.failedTests(stage));
        Optional<String> warning = conditions.warnIf().flatMap(condition -> warning(condition, stage));
        if (warning.isEmpty() || told instanceof StageOutcome.Failed) {
            return told;
        }
        return new StageOutcome.Warned(
                told instanceof StageOutcome.Warned(String reason) ? reason + "; " + warning.get() : warning.get());
    }

    private Optional<String> warning(String condition, long stage) {
        return Condition.overReports().holds(condition, evidence.facts(stage))
                .map(holds -> holds ? Optional.of("warn-if: " + condition) : Optional.<String>empty())
                .orElseGet(() -> Optional.of("warn-if: " + condition + " cannot be told: not all of it was reported"));
    }

    private PipelineFile.Stage stage(Run run, Work work) {
        return runs.file(run).stage(key(work).name()).orElseThrow();
    }

    @Override
    public Assignment assignment(Work work) {
        Run run = runs.byId(run(work));
        PipelineFile.Stage stage = stage(run, work);
        Map<String, String> variant = variant(stage, work);
        List<Assignment.Step> steps = new ArrayList<>();
        for (PipelineFile.Step step : stage.steps()) {
            steps.add(new Assignment.Step(steps.size() + 1, step.name(), step.command(), step.timeout().toSeconds(),
                    step.retries()));
        }
        Map<String, String> values = run.trusted()
                ? secrets.values(secrets.revisions(opened(stage.secrets(), run), run.componentId(), 0)) : Map.of();
        return new Assignment(work.id(), 0, "", 0, Assignment.Kind.STAGE, variables(run, variant), values, steps,
                Optional.of(files(run, stage, variant, work)), Optional.empty(), List.of(), List.of(), Optional.empty(),
                work.untrusted());
    }

    private List<Assignment.Take> taken(Run run, String stage) {
        return takes.of(run.id(), stage).stream()
                .map(row -> new Assignment.Take(row.component(), row.version(), row.intoFolder(),
                        new Assignment.Artifact(row.artifact(), row.fileName(), row.digest(), row.size())))
                .toList();
    }

    static Map<String, String> variant(PipelineFile.Stage stage, Work work) {
        return stage.variants().stream().filter(each -> Variants.name(each).equals(work.variant())).findFirst()
                .orElseThrow();
    }

    private Assignment.Stage files(Run run, PipelineFile.Stage stage, Map<String, String> variant, Work work) {
        List<StageState> stages = runs.state(run).stages();
        List<Assignment.Keep> keep = stage.keep().entrySet().stream().map(entry -> new Assignment.Keep(
                Variants.fill(entry.getKey(), variant, true), Variants.fill(entry.getValue(), variant, false)))
                .toList();
        List<Assignment.Report> reports = stage.reports().entrySet().stream()
                .map(entry -> new Assignment.Report(entry.getKey().word(), entry.getValue())).toList();
        return new Assignment.Stage(stage.timeout().toSeconds(), files.inputs(run, stages, key(work)),
                taken(run, stage.name()),
                stage.reuse().map(reuse -> new Assignment.Reuse(reuse.key(), reuse.folders())), stage.files(), keep,
                reports);
    }

    private List<String> opened(List<String> names, Run run) {
        List<String> missing = secrets.missing(names, run.componentId(), 0);
        return names.stream().filter(name -> !missing.contains(name)).toList();
    }

    private Map<String, String> variables(Run run, Map<String, String> variant) {
        Map<String, String> variables = new LinkedHashMap<>();
        variables.put("PASEO_COMPONENT", run.component());
        variables.put("PASEO_RUN", run.component() + "#" + run.number());
        variables.put("PASEO_VERSION", run.versionNumber());
        variables.put("PASEO_COMMIT", run.commitId());
        variables.put("PASEO_BRANCH", run.branch());
        runs.answers(run).forEach((name, answer) -> variables.put("PASEO_ASK_" + capitals(name), answer));
        variant.forEach((name, value) -> variables.put("PASEO_EACH_" + capitals(name), value));
        return variables;
    }

    private static String capitals(String name) {
        return name.toUpperCase(Locale.ROOT).replace('-', '_');
    }

    @Override
    public boolean reaches(Work work, String digest) {
        return assignment(work).stage()
                .filter(stage -> stage.inputs().stream().anyMatch(input -> input.digest().equals(digest))
                        || stage.takes().stream().anyMatch(take -> take.file().digest().equals(digest)))
                .isPresent();
    }

    @Override
    public StageFiles files() {
        return files;
    }
}
