package dev.paseo.service.run;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.service.agent.Logs;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunMapper.RunRow;
import dev.paseo.service.run.RunViews.RunSummary;
import dev.paseo.service.run.RunViews.RunView;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class RunController {

    /** A person starts a run of a branch's newest commit. */
    record StartRequest(String component, Optional<String> branch, Optional<String> upTo, Optional<Map<String, String>> answers) {}

    record LogLineView(long number, long millis, int step, String text) {}

    /** Lines of one step that stand together; of step 0 the agent's own words. */
    record SpanView(int step, long first, long last) {}

    /**
     * Lines of a log.
     *
     * @param next    the number to ask from next
     * @param total   how many lines there are so far
     * @param outline which lines are of which step
     */
    record LogView(List<LogLineView> lines, long next, long total, boolean ended, List<SpanView> outline) {}

    /** Where a text stands in a log: the first lines that have it, and how many have it in all. */
    record FoundView(List<Long> lines, long total) {}

    private final RunMapper mapper;
    private final Runs runs;
    private final RunViews views;
    private final PersonStarts starts;
    private final Lines lines;
    private final Logs logs;
    private final EvidenceViews evidence;
    private final RunComparison comparison;

    /** What is shown of a run. */
    @Component
    record Shown(RunViews views, Logs logs, EvidenceViews evidence, RunComparison comparison) {}

    RunController(RunMapper mapper, Runs runs, PersonStarts starts, Lines lines, Shown shown) {
        this.mapper = mapper;
        this.runs = runs;
        this.starts = starts;
        this.lines = lines;
        this.views = shown.views();
        this.logs = shown.logs();
        this.evidence = shown.evidence();
        this.comparison = shown.comparison();
    }

    private RunRow look(Person person, String component, long number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return runs.numbered(component, number);
    }

    @PostMapping("/runs")
    @ResponseStatus(HttpStatus.CREATED)
    RunSummary start(@AuthenticationPrincipal Person person, @RequestBody StartRequest request) {
        Permission.require(person, Action.START_RUN, Optional.of(request.component()), Optional.empty());
        RunStarts.Started started = starts.start(request.component(), request.branch(), request.upTo(),
                request.answers().orElse(Map.of()), new Cause.Asked(person.name(), Optional.empty()));
        return views.summary(runs.byId(started.id()));
    }

    @GetMapping("/components/{component}/runs")
    List<RunSummary> newest(@AuthenticationPrincipal Person person, @PathVariable String component,
            @RequestParam Optional<Long> before, @RequestParam(defaultValue = "30") int limit) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return mapper.newest(starts.component(component).id(), before.orElse(Long.MAX_VALUE), Math.clamp(limit, 1, 200))
                .stream().map(views::summary).toList();
    }

    @GetMapping("/runs/{component}/{number}")
    RunView run(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        return views.whole(look(person, component, number));
    }

    @PostMapping("/runs/{component}/{number}/cancellation")
    RunSummary cancel(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        Permission.require(person, Action.START_RUN, Optional.of(component), Optional.empty());
        RunRow row = runs.numbered(component, number);
        runs.cancel(row, person.name());
        return views.summary(runs.byId(row.id()));
    }

    /** Goes on from what failed; what passed stands. */
    @PostMapping("/runs/{component}/{number}/resumption")
    RunSummary resume(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        Permission.require(person, Action.START_RUN, Optional.of(component), Optional.empty());
        RunRow row = runs.numbered(component, number);
        lines.resume(row, person.name());
        return views.summary(runs.byId(row.id()));
    }

    /** Runs the same commit once more, as a run of its own with the same answers. */
    @PostMapping("/runs/{component}/{number}/repetition")
    @ResponseStatus(HttpStatus.CREATED)
    RunSummary again(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        Permission.require(person, Action.START_RUN, Optional.of(component), Optional.empty());
        RunRow row = runs.numbered(component, number);
        return views.summary(runs.byId(starts.again(row, views.whole(row).answers(), person.name()).id()));
    }

    /** What its reports say, beside the run before it on its branch, and the trend over the last 30 runs. */
    @GetMapping("/runs/{component}/{number}/evidence")
    EvidenceViews.EvidenceView evidence(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number) {
        return evidence.of(look(person, component, number).id());
    }

    /** What changed since another run of the component. */
    @GetMapping("/runs/{component}/{number}/comparison")
    RunComparison.RunComparisonView compare(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @RequestParam long with) {
        return comparison.compare(look(person, component, with), look(person, component, number));
    }

    /**
     * Lines of a stage's log from number {@code from} on; waits for the next one where there is none yet. With
     * {@code newest}, the last {@code limit} of them.
     */
    @GetMapping("/runs/{component}/{number}/stages/{stage}/log")
    LogView log(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant, @RequestParam Optional<Integer> attempt,
            @RequestParam(defaultValue = "1") long from, @RequestParam(defaultValue = "2000") int limit,
            @RequestParam(defaultValue = "0") long waitMillis, @RequestParam(defaultValue = "false") boolean newest) throws InterruptedException {
        RunViews.Logged found = views.logged(look(person, component, number), stage, variant, attempt);
        boolean ended = found.ended();
        if (found.work().isEmpty()) {
            return new LogView(List.of(), from, 0, ended, List.of());
        }
        long work = found.work().get();
        int most = Math.clamp(limit, 1, 10_000);
        List<Logs.Line> lines = logs.await(work, from, newest ? 1 : most, ended ? 0 : Math.clamp(waitMillis, 0, 20_000));
        List<Logs.Span> outline = logs.outline(work);
        long total = outline.isEmpty() ? 0 : outline.getLast().last();
        if (newest) {
            lines = logs.read(work, Math.max(from, total - most + 1), most);
        }
        return new LogView(lines.stream().map(line -> new LogLineView(line.number(), line.line().millis(), line.line().step(), line.line().text())).toList(),
                lines.isEmpty() ? from : lines.getLast().number() + 1, total, ended,
                outline.stream().map(span -> new SpanView(span.step(), span.first(), span.last())).toList());
    }

    /** Looks for a text, whatever its case, in a stage's whole log. */
    @GetMapping("/runs/{component}/{number}/stages/{stage}/log/search")
    FoundView search(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant, @RequestParam Optional<Integer> attempt, @RequestParam String text) {
        RunViews.Logged found = views.logged(look(person, component, number), stage, variant, attempt);
        if (text.isEmpty() || text.length() > 200) {
            throw Refusal.invalid("/text", "what is looked for has 1 to 200 signs");
        }
        return found.work().map(work -> logs.search(work, text, 1000)).map(hits -> new FoundView(hits.lines(), hits.total())).orElse(new FoundView(List.of(), 0));
    }

    /** The whole log as text. */
    @GetMapping(value = "/runs/{component}/{number}/stages/{stage}/log.txt", produces = "text/plain")
    void wholeLog(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant, @RequestParam Optional<Integer> attempt,
            HttpServletResponse response) throws IOException {
        RunViews.Logged found = views.logged(look(person, component, number), stage, variant, attempt);
        response.setContentType("text/plain;charset=utf-8");
        Writer out = new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
        long from = 1;
        List<Logs.Line> lines = found.work().map(work -> logs.read(work, 1, 5000)).orElse(List.of());
        while (!lines.isEmpty()) {
            for (Logs.Line line : lines) {
                out.write(line.line().text() + "\n");
            }
            from = lines.getLast().number() + 1;
            lines = logs.read(found.work().orElseThrow(), from, 5000);
        }
        out.flush();
    }
}
