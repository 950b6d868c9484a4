package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Worded;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Which deployments there were. */
@RestController
@RequestMapping("/api/v1")
class DeploymentHistoryController {

    private final Components components;
    private final Environments environments;
    private final Deployments deployments;
    private final DeploymentSummaries summaries;

    DeploymentHistoryController(Components components, Environments environments, Deployments deployments,
            DeploymentSummaries summaries) {
        this.components = components;
        this.environments = environments;
        this.deployments = deployments;
        this.summaries = summaries;
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
        Optional<String> name = component.map(each -> components.named(each).name());
        environment.ifPresent(environments::named);
        Optional<DeploymentStatus> wanted = status
                .map(word -> Worded.read(DeploymentStatus.class, "/status", word));
        return deployments.list(new Deployments.Filter(name, environment, wanted, by, since, until,
                Cursor.of(before, after), Math.clamp(limit, 1, 200))).stream().map(summaries::of).toList();
    }

    /** Deployments of a component into an environment, the newest first. */
    @GetMapping("/history/{component}/{environment}")
    List<DeploymentSummary> ofPlace(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.of(environment));
        return deployments.newest(environments.place(component, environment).id(), 100).stream()
                .map(summaries::of).toList();
    }
}
