package dev.paseo.service.stage;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.log.LogViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.run.Run;
import dev.paseo.service.run.StageViews;
import dev.paseo.service.run.Runs;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Logs of stages. */
@RestController
@RequestMapping("/api/v1/runs/{component}/{number}/stages/{stage}")
class StageLogController {

    private final Runs runs;
    private final StageViews stages;
    private final LogViews logs;

    StageLogController(Runs runs, StageViews stages, LogViews logs) {
        this.runs = runs;
        this.stages = stages;
        this.logs = logs;
    }

    private Run run(Person person, String component, long number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return runs.numbered(component, number);
    }

    /**
     * Lines of a stage's log from number {@code from} on; waits for the next one where there is none yet. With
     * {@code newest}, the last {@code limit} of them.
     */
    @GetMapping("/log")
    LogViews.LogView log(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant,
            @RequestParam Optional<Integer> attempt,
            @RequestParam(defaultValue = "1") long from, @RequestParam(defaultValue = "2000") int limit,
            @RequestParam(defaultValue = "0") long waitMillis, @RequestParam(defaultValue = "false") boolean newest)
            throws InterruptedException {
        return logs.view(stages.logged(run(person, component, number), stage, variant, attempt),
                new LogViews.Wanted(from, limit, waitMillis, newest));
    }

    /** Looks for a text, whatever its case, in a stage's whole log. */
    @GetMapping("/log/search")
    LogViews.FoundView search(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant,
            @RequestParam Optional<Integer> attempt, @RequestParam String text) {
        return logs.search(stages.logged(run(person, component, number), stage, variant, attempt), text);
    }

    /** The whole log of a stage as text. */
    @GetMapping(value = "/log.txt", produces = "text/plain")
    void wholeLog(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @PathVariable String stage, @RequestParam(defaultValue = "") String variant,
            @RequestParam Optional<Integer> attempt,
            HttpServletResponse response) throws IOException {
        logs.copy(stages.logged(run(person, component, number), stage, variant, attempt), response);
    }
}
