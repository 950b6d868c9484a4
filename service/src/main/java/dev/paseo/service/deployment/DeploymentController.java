package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.deployment.DeploymentViews.DeploymentView;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.log.LogViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Worded;
import dev.paseo.service.version.Versions;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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
class DeploymentController {

    /** A person asks for a promotion of a version into an environment. */
    record PromotionRequest(String component, String version, String environment, Optional<String> comment,
            Optional<String> emergency) {}

    /** What led to a deployment, and who let it pass. */
    record WhyView(DeploymentSummary deployment, List<GateViews.GateDecisionView> decisions,
            List<Causes.Link> causes) {}

    private final Requests requests;
    private final DeploymentViews views;
    private final LogViews logs;
    private final Lookups lookups;

    /** How names become things. */
    @org.springframework.stereotype.Component("deploymentLookups")
    record Lookups(Components components, Versions versions, Environments environments, Deployments deployments,
            WaysBack ways, StepLog steps) {}

    DeploymentController(Requests requests, DeploymentViews views, LogViews logs, Lookups lookups) {
        this.requests = requests;
        this.views = views;
        this.logs = logs;
        this.lookups = lookups;
    }

    /** Requests a version into an environment. */
    @PostMapping("/deployments")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary promote(@AuthenticationPrincipal Person person, @RequestBody PromotionRequest request) {
        Permission.require(person, Action.PROMOTE,
                "request versions of " + request.component() + " into " + request.environment(),
                Optional.of(request.component()), Optional.of(request.environment()));
        request.emergency()
                .ifPresent(why -> Permission.require(person, Action.EMERGENCY,
                        "call it an emergency for " + request.component() + " in " + request.environment(),
                        Optional.of(request.component()), Optional.of(request.environment())));
        Components.RegisteredComponent component = lookups.components().named(request.component());
        lookups.environments().named(request.environment());
        Versions.Version version = lookups.versions().numbered(component.id(), component.name(), request.version());
        Environments.Place place = lookups.environments().place(component.name(), request.environment());
        long id = requests.request(new Requests.Wanted(place, version, Kind.PROMOTION, Optional.of(person),
                new Cause.Asked(person.name(), request.comment().or(request::emergency)),
                request.emergency().filter(why -> !why.isBlank())));
        return views.summary(lookups.deployments().get(id));
    }

    private Deployment look(Person person, long id) {
        Permission.require(person, Action.LOOK);
        return lookups.deployments().get(id);
    }

    /**
     * Deployments, the newest first, or the oldest.
     *
     * @param after the oldest first, those after this number; 0 from the very oldest on; not beside before
     * @param limit at most so many, 1 to 200
     */
    @GetMapping("/deployments")
    List<DeploymentSummary> list(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> environment,
            @RequestParam Optional<String> status, @RequestParam Optional<String> by,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam Optional<Long> before, @RequestParam Optional<Long> after,
            @RequestParam(defaultValue = "30") int limit) {
        Permission.require(person, Action.LOOK, component, environment);
        Optional<String> name = component.map(each -> lookups.components().named(each).name());
        environment.ifPresent(lookups.environments()::named);
        Optional<DeploymentStatus> wanted = status
                .map(word -> Worded.read(DeploymentStatus.class, "/status", word));
        return lookups.deployments().list(new Deployments.Filter(name, environment, wanted, by, since, until,
                Cursor.of(before, after), Math.clamp(limit, 1, 200))).stream().map(views::summary).toList();
    }

    /** One deployment: its gate, plan, hosts, tasks and comparison with what is live. */
    @GetMapping("/deployments/{id}")
    DeploymentView deployment(@AuthenticationPrincipal Person person, @PathVariable long id) {
        return views.whole(look(person, id), person.name());
    }

    /** The chain of causes of a deployment, back to a push, a clock, an arrival or a person. */
    @GetMapping("/deployments/{id}/why")
    WhyView why(@AuthenticationPrincipal Person person, @PathVariable long id) {
        DeploymentView whole = views.whole(look(person, id), person.name());
        return new WhyView(whole.deployment(), whole.decisions(), whole.causes());
    }

    /** Withdraws a deployment that has not begun, or undoes one that has. */
    @PostMapping("/deployments/{id}/cancellation")
    DeploymentSummary cancel(@AuthenticationPrincipal Person person, @PathVariable long id) {
        DeploymentSummary before = views.summary(look(person, id));
        Permission.require(person, Action.PROMOTE,
                "withdraw or undo deployments of " + before.component() + " in " + before.environment(),
                Optional.of(before.component()), Optional.of(before.environment()));
        requests.cancel(id, person);
        return views.summary(lookups.deployments().get(id));
    }

    /** Whether it goes on, where its plan asks a person. */
    record AnswerRequest(boolean yes) {}

    /** Continues a paused canary, or undoes it. */
    @PostMapping("/deployments/{id}/answer")
    DeploymentSummary answer(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody AnswerRequest request) {
        DeploymentSummary before = views.summary(look(person, id));
        Permission.require(person, Action.PROMOTE,
                "say whether a deployment of " + before.component() + " in " + before.environment() + " goes on",
                Optional.of(before.component()), Optional.of(before.environment()));
        lookups.ways().answer(id, person, request.yes());
        return views.summary(lookups.deployments().get(id));
    }

    private LogViews.Logged logged(Person person, long id, long work) {
        look(person, id);
        StepLog.HostTaskView task = lookups.steps().ofDeployment(id).stream().filter(each -> each.work() == work)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("Deployment " + id + " has no task " + work));
        return new LogViews.Logged(Optional.of(task.work()), task.endedAt().isPresent());
    }

    /**
     * Lines of the log of a deployment's task on a host, from number {@code from} on; waits for the next one where
     * there is none yet. With {@code newest}, the last {@code limit} of them.
     */
    @GetMapping("/deployments/{id}/tasks/{work}/log")
    LogViews.LogView log(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            @RequestParam(defaultValue = "1") long from, @RequestParam(defaultValue = "2000") int limit,
            @RequestParam(defaultValue = "0") long waitMillis, @RequestParam(defaultValue = "false") boolean newest)
            throws InterruptedException {
        return logs.view(logged(person, id, work), new LogViews.Wanted(from, limit, waitMillis, newest));
    }

    /** Looks for a text, whatever its case, in a task's whole log. */
    @GetMapping("/deployments/{id}/tasks/{work}/log/search")
    LogViews.FoundView search(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            @RequestParam String text) {
        return logs.search(logged(person, id, work), text);
    }

    /** The whole log of a task as text. */
    @GetMapping(value = "/deployments/{id}/tasks/{work}/log.txt", produces = "text/plain")
    void wholeLog(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            HttpServletResponse response) throws IOException {
        logs.copy(logged(person, id, work), response);
    }

    /** Deployments of a component into an environment, the newest first. */
    @GetMapping("/history/{component}/{environment}")
    List<DeploymentSummary> history(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.of(environment));
        return lookups.deployments().newest(lookups.environments().place(component, environment).id(), 100).stream()
                .map(views::summary).toList();
    }
}
