package dev.paseo.service.run;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.run.RunViews.RunSummary;
import dev.paseo.service.run.RunViews.RunView;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class RunController {

    /** A person starts a run of a branch's newest commit. */
    record StartRequest(String component, Optional<String> branch, Optional<String> upTo,
            Optional<Map<String, String>> answers) {}

    private final Runs runs;
    private final RunViews views;
    private final PersonStarts starts;
    private final Lines lines;
    private final EvidenceViews evidence;

    RunController(Runs runs, PersonStarts starts, Lines lines, RunViews views,
            EvidenceViews evidence) {
        this.runs = runs;
        this.starts = starts;
        this.lines = lines;
        this.views = views;
        this.evidence = evidence;
    }

    private Run look(Person person, String component, long number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return runs.numbered(component, number);
    }

    /** Starts a run of the newest commit of a branch. */
    @PostMapping("/runs")
    @ResponseStatus(HttpStatus.CREATED)
    RunSummary start(@AuthenticationPrincipal Person person, @RequestBody StartRequest request) {
        Permission.require(person, Action.START_RUN, "start runs of " + request.component(),
                Optional.of(request.component()), Optional.empty());
        RunStarts.Started started = starts.start(request.component(), request.branch(), request.upTo(),
                request.answers().orElse(Map.of()), new Cause.Asked(person.name(), Optional.empty()));
        return views.summary(runs.byId(started.id()));
    }

    /** One run: its stages, artifacts, files, answers and causes. */
    @GetMapping("/runs/{component}/{number}")
    RunView run(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        return views.whole(look(person, component, number));
    }

    /** Cancels a run; a second time ends what still runs at once. */
    @PostMapping("/runs/{component}/{number}/cancellation")
    RunSummary cancel(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number) {
        Permission.require(person, Action.START_RUN, "cancel runs of " + component, Optional.of(component),
                Optional.empty());
        Run row = runs.numbered(component, number);
        runs.cancel(row, person.name());
        return views.summary(runs.byId(row.id()));
    }

    /** Resumes a run from what failed; what passed stands. */
    @PostMapping("/runs/{component}/{number}/resumption")
    RunSummary resume(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number) {
        Permission.require(person, Action.START_RUN, "resume runs of " + component, Optional.of(component),
                Optional.empty());
        Run row = runs.numbered(component, number);
        lines.resume(row, person.name());
        return views.summary(runs.byId(row.id()));
    }

    /** Runs the same commit once more, as a run of its own with the same answers. */
    @PostMapping("/runs/{component}/{number}/repetition")
    @ResponseStatus(HttpStatus.CREATED)
    RunSummary again(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number) {
        Permission.require(person, Action.START_RUN, "start runs of " + component, Optional.of(component),
                Optional.empty());
        Run row = runs.numbered(component, number);
        return views.summary(runs.byId(starts.again(row, views.whole(row).answers(), person.name()).id()));
    }

    /** What its reports say, beside the run before it on its branch, and the trend over the last 30 runs. */
    @GetMapping("/runs/{component}/{number}/evidence")
    EvidenceViews.EvidenceView evidence(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number) {
        return evidence.of(look(person, component, number).id());
    }
}
