package dev.paseo.service.run;

import dev.paseo.core.run.RunState;
import dev.paseo.core.run.StageState;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.text.Shortened;
import dev.paseo.language.file.Answers;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.RunPlanning;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Starts runs: gives them their number, reserves their version's, and plans their stages. */
@Component
public class RunStarts {

    /** The effect of a run that has ended, and may start others: its id. */
    public static final String ENDED = "run-ended";

    /**
     * What is to be started.
     *
     * @param file    the pipeline file's row
     * @param upTo    how far the version may walk by itself
     * @param answers to what the file asks; what is not answered takes its default
     */
    public record Start(RegisteredComponent component, String branch, Mirror.Commit commit, boolean trusted, long file,
            PipelineFile plan,
            Reason reason, @Nullable String upTo, Map<String, String> answers) {

        public long cause() {
            return reason.cause();
        }

        public String by() {
            return reason.by();
        }

        public String summary() {
            return Shortened.to(commit.summary(), 500);
        }

        public String author() {
            return Shortened.to(commit.author() + " <" + commit.address() + ">", 300);
        }
    }

    /**
     * Why a run is started.
     *
     * @param cause    the cause's row
     * @param kind     the cause in a word: {@code push}, {@code upstream}, {@code asked}
     * @param by       who or what started it
     * @param upstream the versions that came with it, of each upstream component one
     * @param arrived  the version whose arrival started it; such a run seals nothing
     */
    public record Reason(long cause, String kind, String by, List<Upstream> upstream, Optional<Arrived> arrived) {

        public Reason(long cause, String kind, String by) {
            this(cause, kind, by, List.of(), Optional.empty());
        }

        Optional<Upstream> from(long component) {
            return upstream.stream().filter(each -> each.component() == component).findFirst();
        }
    }

    /** A version of an upstream component. */
    public record Upstream(long component, long version) {}

    /** A version that arrived from elsewhere, with its artifacts. */
    public record Arrived(long version, String number) {}

    /** A run that was started. */
    public record Started(long id, long number, String version) {}

    private final RunMapper mapper;
    private final VersionNumbers numbers;
    private final FromElsewhere elsewhere;
    private final Effects effects;
    private final Changes changes;
    private final Json json;

    RunStarts(RunMapper mapper, VersionNumbers numbers, FromElsewhere elsewhere, Effects effects, Changes changes,
            Json json) {
        this.mapper = mapper;
        this.numbers = numbers;
        this.elsewhere = elsewhere;
        this.effects = effects;
        this.changes = changes;
        this.json = json;
    }

    /** Starts a run in the transaction under way. */
    public Started start(Start start) {
        if (start.component().retired().isPresent()) {
            throw Refusal.conflict(start.component().name() + " is retired: none of its runs can be started");
        }
        elsewhere.refuseMissingSecrets(start);
        long component = start.component().id();
        mapper.addLine(component, start.branch());
        long line = mapper.line(component, start.branch());
        Answers.wrong(start.plan().asks(), start.answers()).ifPresent(wrong -> {
            throw Refusal.invalid("/answers/" + wrong.name(), wrong.reason());
        });
        Map<String, String> answers = Answers.of(start.plan().asks(), start.answers());
        List<Takes.Decided> takes = elsewhere.taken(line, start);
        String version = start.reason().arrived().map(Arrived::number).orElseGet(() -> numbers.reserve(start));
        long number = numbers.nextRun(component);
        RunState state = RunPlanning.plan(start.plan(),
                new RunPlanning.Start(start.branch(), start.commit().id(), version, start.reason().kind(),
                        start.trusted(), start.reason().arrived().isPresent(), answers));
        RunMapper.NewRun row = new RunMapper.NewRun(number, version, line, start, json.write(state),
                json.write(answers), changes.now());
        mapper.add(row);
        elsewhere.keep(row.id, takes);
        start.reason().upstream().forEach(each -> mapper.addUpstream(row.id, each));
        for (int at = 0; at < state.stages().size(); at++) {
            StageState stage = state.stages().get(at);
            mapper.addStage(row.id, at, stage.key().name(), stage.key().variant(), stage.attempt(),
                    StageStatus.WAITING);
        }
        String name = start.component().name() + "#" + number;
        effects.add("run " + row.id, "prepare run " + row.id, PrepareRun.KIND, Long.toString(row.id));
        changes.record(AuditTrail.Entry.of(start.by(), "run started", name)
                .with("commit", start.commit().id()).with("branch", start.branch()).with("version", version));
        changes.publish("run", name);
        return new Started(row.id, number, version);
    }

    /**
     * The line of a branch, held until the transaction under way ends, so that two starts on it come one after the
     * other.
     */
    public long holdLine(long component, String branch) {
        mapper.addLine(component, branch);
        return mapper.lockLine(mapper.line(component, branch));
    }

    /** Where no stage is written and there is no commit whose files would be kept, there is nothing to run. */
    public static Optional<String> nothingToRun(RegisteredComponent component, PipelineFile file) {
        return file.stages().isEmpty() && !(file.isOfTree() && component.repository().isPresent())
                ? Optional.of("The pipeline file has no stages: nothing would be run") : Optional.empty();
    }
}
