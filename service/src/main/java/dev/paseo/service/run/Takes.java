package dev.paseo.service.run;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.PipelineFile.Take.Which;
import dev.paseo.language.file.PipelineFile.Take;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * Which versions of other components a run takes from: decided once, when it starts, and written down with the reason.
 */
@Component
public class Takes {

    /** The folder of the workspace with what arrived: a folder for each artifact. */
    private static final String ARRIVED = "arrived/";

    private final TakeMapper mapper;
    private final Components components;

    Takes(TakeMapper mapper, Components components) {
        this.mapper = mapper;
        this.components = components;
    }

    /** Something taken by a stage that is about to be started. */
    record Decided(String stage, long version, String artifact, String into, String because) {}

    /** Decides for all stages of a run before it starts; refused where one cannot be met. */
    List<Decided> decide(long line, RunStarts.Start start) {
        refusePieces(start);
        return start.plan().stages().stream().flatMap(stage -> Stream.concat(
                start.reason().arrived().stream().flatMap(version -> arrived(stage.name(), version)),
                stage.take().stream().flatMap(take -> decide(line, start, stage.name(), take)))).toList();
    }

    /** Writes down what was decided, in the transaction in which the run starts. */
    void keep(long run, List<Decided> decided) {
        for (int at = 0; at < decided.size(); at++) {
            mapper.add(run, at, decided.get(at));
        }
    }

    /** Every stage of a run that an arrival started finds the artifacts that arrived. */
    private Stream<Decided> arrived(String stage, RunStarts.Arrived version) {
        return mapper.artifacts(version.version()).stream()
                .map(file -> new Decided(stage, version.version(), file.name(), ARRIVED + file.name(),
                        "its arrival started the run"));
    }

    private Stream<Decided> decide(long line, RunStarts.Start start, String stage, Take take) {
        RegisteredComponent from = components.named(take.from());
        refuseClosed(start, from);
        TakeMapper.Choice chosen = choose(take, from, line, start.reason());
        if (start.trusted() && !chosen.trusted()) {
            throw Refusal.conflict(stage + " takes " + from.name() + " " + chosen.number() + " (" + chosen.because()
                    + "), which was not built from a trusted branch; a run of "
                    + start.branch() + " is trusted, and takes only what is");
        }
        List<TakeMapper.FileRow> files = mapper.artifacts(chosen.version()).stream()
                .filter(file -> take.artifact().map(pattern -> new BranchPattern(pattern).matches(file.name()))
                        .orElse(true))
                .toList();
        if (files.isEmpty()) {
            throw Refusal.conflict(stage + " takes " + take.artifact().orElse("artifacts") + " from " + from.name()
                    + " " + chosen.number()
                    + ", which has no such artifact; it has " + String.join(", ",
                            mapper.artifacts(chosen.version()).stream().map(TakeMapper.FileRow::name).toList()));
        }
        return files.stream()
                .map(file -> new Decided(stage, chosen.version(), file.name(), take.into(), chosen.because()));
    }

    private void refusePieces(RunStarts.Start start) {
        List<String> closed = start.trusted() ? List.of()
                : mapper.piecesOfTrusted(start.file(), start.component().id());
        if (!closed.isEmpty()) {
            throw Refusal.conflict(start.branch() + " is not a trusted branch of " + start.component().name()
                    + ", and its pipeline file uses pieces of " + String.join(", ", closed)
                    + ", opened to trusted branches alone");
        }
    }

    private void refuseClosed(RunStarts.Start start, RegisteredComponent from) {
        Optional<Boolean> allBranches = mapper.opened(start.component().id(), from.id());
        if (allBranches.isEmpty()) {
            throw Refusal
                    .conflict(start.component().name() + " takes from " + from.name() + ", which was not opened to it");
        }
        if (!start.trusted() && !allBranches.get()) {
            throw Refusal.conflict(
                    start.branch() + " is not a trusted branch of " + start.component().name() + ", and " + from.name()
                            + " is opened to trusted branches alone");
        }
    }

    private TakeMapper.Choice choose(Take take, RegisteredComponent from, long line, RunStarts.Reason reason) {
        Optional<TakeMapper.Choice> found = switch (take.version()) {
            case Which.Upstream() -> reason.from(from.id()).flatMap(each -> mapper.cameWith(each.version()))
                    .or(() -> mapper.lastUsed(line, from.id())).or(() -> mapper.newest(from.id()));
            case Which.Newest() -> mapper.newest(from.id());
            case Which.LiveIn(String environment) -> mapper.liveIn(from.id(), environment);
            case Which.Matching(String pattern) -> mapper.trusted(from.id()).stream()
                    .filter(each -> new BranchPattern(pattern).matches(each.number()))
                    .findFirst().map(each -> new TakeMapper.Choice(each.version(), each.number(),
                            "the newest that matches " + pattern, true));
        };
        return found.orElseThrow(() -> Refusal.conflict(from.name() + switch (take.version()) {
            case Which.Upstream() -> " has no version yet to take from";
            case Which.Newest() -> " has no version yet to take from";
            case Which.LiveIn(String environment) -> " is not live in " + environment
                    + ", where a version to take was wanted";
            case Which.Matching(String pattern) -> " has no version that matches " + pattern;
        }));
    }

    /** What a stage of a run takes. */
    public List<Taken> of(long run, String stage) {
        return mapper.taken(run).stream().filter(row -> row.stage().equals(stage)).toList();
    }

    List<Taken> of(long run) {
        return mapper.taken(run);
    }
}
