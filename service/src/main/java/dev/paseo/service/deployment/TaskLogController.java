package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.log.LogViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Logs of what a deployment did on its hosts. */
@RestController
@RequestMapping("/api/v1/deployments/{id}/tasks/{work}")
class TaskLogController {

    private final Deployments deployments;
    private final StepLog steps;
    private final LogViews logs;

    TaskLogController(Deployments deployments, StepLog steps, LogViews logs) {
        this.deployments = deployments;
        this.steps = steps;
        this.logs = logs;
    }

    private LogViews.Logged logged(Person person, long id, long work) {
        Permission.require(person, Action.LOOK);
        deployments.get(id);
        StepLog.HostTaskView task = steps.ofDeployment(id).stream().filter(each -> each.work() == work)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("Deployment " + id + " has no task " + work));
        return new LogViews.Logged(Optional.of(task.work()), task.endedAt().isPresent());
    }

    /**
     * Lines of the log of a deployment's task on a host, from number {@code from} on; waits for the next one where
     * there is none yet. With {@code newest}, the last {@code limit} of them.
     */
    @GetMapping("/log")
    LogViews.LogView lines(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            @RequestParam(defaultValue = "1") long from, @RequestParam(defaultValue = "2000") int limit,
            @RequestParam(defaultValue = "0") long waitMillis, @RequestParam(defaultValue = "false") boolean newest)
            throws InterruptedException {
        return logs.view(logged(person, id, work), new LogViews.Wanted(from, limit, waitMillis, newest));
    }

    /** Looks for a text, whatever its case, in a task's whole log. */
    @GetMapping("/log/search")
    LogViews.FoundView search(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            @RequestParam String text) {
        return logs.search(logged(person, id, work), text);
    }

    /** The whole log of a task as text. */
    @GetMapping(value = "/log.txt", produces = "text/plain")
    void whole(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            HttpServletResponse response) throws IOException {
        logs.copy(logged(person, id, work), response);
    }
}
