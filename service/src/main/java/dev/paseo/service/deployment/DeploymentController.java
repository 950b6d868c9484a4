package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.agent.Logs;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.deployment.DeploymentViews.DeploymentView;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
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
    record PromotionRequest(String component, String version, String environment, Optional<String> comment, Optional<String> emergency) {}

    record HostLogLine(long number, long millis, int step, String text) {}

    /** What led to a deployment, and who let it pass. */
    record WhyView(DeploymentSummary deployment, List<GateViews.RulingView> rulings, List<Causes.Link> causes) {}

    private final Requests requests;
    private final DeploymentViews views;
    private final Logs logs;
    private final Lookups lookups;

    /** How names become things. */
    @org.springframework.stereotype.Component("deploymentLookups")
    record Lookups(Components components, Versions versions, Environments environments, DeploymentMapper mapper, WaysBack ways) {}

    DeploymentController(Requests requests, DeploymentViews views, Logs logs, Lookups lookups) {
        this.requests = requests;
        this.views = views;
        this.logs = logs;
        this.lookups = lookups;
    }

    @PostMapping("/deployments")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary promote(@AuthenticationPrincipal Person person, @RequestBody PromotionRequest request) {
        Permission.require(person, Action.PROMOTE, Optional.of(request.component()), Optional.of(request.environment()));
        request.emergency().ifPresent(why -> Permission.require(person, Action.EMERGENCY, Optional.of(request.component()), Optional.of(request.environment())));
        Components.Registered component = lookups.components().named(request.component());
        lookups.environments().named(request.environment());
        Versions.Sealed version = lookups.versions().numbered(component.id(), component.name(), request.version());
        Environments.Place place = lookups.environments().place(component.name(), request.environment());
        long id = requests.request(new Requests.Wanted(place, version, Kind.PROMOTION, Optional.of(person),
                new Cause.Asked(person.name(), request.comment().or(request::emergency)), request.emergency().filter(why -> !why.isBlank())));
        return views.summary(requests.deployment(id));
    }

    private DeploymentRow look(Person person, long id) {
        Permission.require(person, Action.LOOK);
        return requests.deployment(id);
    }

    @GetMapping("/deployments/{id}")
    DeploymentView deployment(@AuthenticationPrincipal Person person, @PathVariable long id) {
        return views.whole(look(person, id), person.name());
    }

    @GetMapping("/deployments/{id}/why")
    WhyView why(@AuthenticationPrincipal Person person, @PathVariable long id) {
        DeploymentView whole = views.whole(look(person, id), person.name());
        return new WhyView(whole.deployment(), whole.rulings(), whole.causes());
    }

    @PostMapping("/deployments/{id}/cancellation")
    DeploymentSummary cancel(@AuthenticationPrincipal Person person, @PathVariable long id) {
        DeploymentSummary before = views.summary(look(person, id));
        Permission.require(person, Action.PROMOTE, Optional.of(before.component()), Optional.of(before.environment()));
        requests.cancel(id, person);
        return views.summary(requests.deployment(id));
    }

    /** Whether it goes on, where its plan asks a person. */
    record AnswerRequest(boolean yes) {}

    @PostMapping("/deployments/{id}/answer")
    DeploymentSummary answer(@AuthenticationPrincipal Person person, @PathVariable long id, @RequestBody AnswerRequest request) {
        DeploymentSummary before = views.summary(look(person, id));
        Permission.require(person, Action.PROMOTE, Optional.of(before.component()), Optional.of(before.environment()));
        lookups.ways().answer(id, person, request.yes());
        return views.summary(requests.deployment(id));
    }

    /** The log of a deployment's task on a host. */
    @GetMapping("/deployments/{id}/tasks/{work}/log")
    List<HostLogLine> log(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable long work,
            @RequestParam(defaultValue = "1") long from) {
        DeploymentView whole = views.whole(look(person, id), person.name());
        if (whole.tasks().stream().noneMatch(task -> task.work() == work)) {
            throw Refusal.notFound("deployment " + id + " has no task " + work);
        }
        return logs.read(work, from, 5000).stream()
                .map(line -> new HostLogLine(line.number(), line.line().millis(), line.line().step(), line.line().text())).toList();
    }

    @GetMapping("/history/{component}/{environment}")
    List<DeploymentSummary> history(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String environment) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.of(environment));
        return lookups.mapper().newest(lookups.environments().place(component, environment).id(), 100).stream().map(views::summary).toList();
    }
}
