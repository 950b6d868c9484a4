package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** One component in one environment: what is there, and what people do about it. */
@RestController
@RequestMapping("/api/v1/places/{component}/{environment}")
class PlaceController {

    /** @param to the version to go back to; the last good one where absent */
    record RollbackRequest(Optional<String> to, String reason, Optional<Boolean> emergency) {}

    /** @param emergency the reason for which it goes past unmet criteria */
    record RedeployRequest(Optional<String> comment, Optional<String> emergency) {}

    /** @param hosts those to be brought to what is live; those that differ where absent */
    record RepairRequest(Optional<List<String>> hosts) {}

    record RepairView(List<String> hosts) {}

    record ReasonRequest(String reason) {}

    record RecordRequest(String version, String reason) {}

    private final WaysBack ways;
    private final Holds holds;
    private final PlaceViews views;
    private final DeploymentViews deployments;
    private final Lookups lookups;

    /** How names become things. */
    @org.springframework.stereotype.Component("placeLookups")
    record Lookups(Components components, Environments environments, Versions versions, Deployments deployments) {}

    PlaceController(WaysBack ways, Holds holds, PlaceViews views, DeploymentViews deployments, Lookups lookups) {
        this.ways = ways;
        this.holds = holds;
        this.views = views;
        this.deployments = deployments;
        this.lookups = lookups;
    }

    private Place place(Person person, Action action, String tried, String component, String environment) {
        Permission.require(person, action, tried, Optional.of(component), Optional.of(environment));
        return lookups.environments().place(lookups.components().named(component).name(), environment);
    }

    private static String here(String component, String environment) {
        return component + " in " + environment;
    }

    /** One place: what is live on its hosts since when, what waits, holds and drift. */
    @GetMapping
    PlaceViews.PlaceView place(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment) {
        return views
                .view(place(person, Action.LOOK, "look at " + here(component, environment), component, environment));
    }

    /** What would happen if this version were deployed there now. */
    @GetMapping("/plan")
    PlaceViews.DeploymentPlanView plan(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment, @RequestParam String version) {
        Place place = place(person, Action.LOOK, "look at " + here(component, environment), component, environment);
        return views.plan(place, lookups.versions().numbered(place.componentId(), component, version), person.name());
    }

    /** Deploys the last good version again, or a named one, and holds the place. */
    @PostMapping("/rollback")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary rollback(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RollbackRequest request) {
        Place place = place(person, Action.ROLL_BACK, "roll back " + here(component, environment), component,
                environment);
        boolean emergency = request.emergency().orElse(false);
        if (emergency) {
            Permission.require(person, Action.EMERGENCY, "call it an emergency for " + here(component, environment),
                    Optional.of(component), Optional.of(environment));
        }
        return deployment(ways.rollback(place, person, request.to(), request.reason().strip(), emergency));
    }

    private DeploymentSummary deployment(long id) {
        return deployments.summary(lookups.deployments().get(id));
    }

    /** Deploys what is live once more, with the settings and secrets of now. */
    @PostMapping("/redeployment")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary redeploy(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RedeployRequest request) {
        Place place = place(person, Action.PROMOTE, "redeploy " + here(component, environment), component, environment);
        request.emergency()
                .ifPresent(why -> Permission.require(person, Action.EMERGENCY,
                        "call it an emergency for " + here(component, environment), Optional.of(component),
                        Optional.of(environment)));
        return deployment(
                ways.redeploy(place, person, request.comment(), request.emergency().filter(why -> !why.isBlank())));
    }

    /** Brings hosts that differ or are unhealthy to what is live, exactly as it was deployed. */
    @PostMapping("/repair")
    RepairView repair(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment, @RequestBody RepairRequest request) {
        return new RepairView(
                ways.repair(place(person, Action.PROMOTE, "repair hosts of " + here(component, environment), component,
                        environment), person.name(), request.hosts().orElse(List.of())));
    }

    /** Holds a place: nothing is deployed there by itself until the hold is lifted. */
    @PutMapping("/hold")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void hold(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String environment,
            @RequestBody ReasonRequest request) {
        holds.hold(place(person, Action.PROMOTE, "hold " + here(component, environment), component, environment),
                person, request.reason());
    }

    /** Lifts the hold of a place. */
    @DeleteMapping("/hold")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void liftHold(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestParam(defaultValue = "") String reason) {
        holds.liftHold(place(person, Action.PROMOTE, "lift the hold of " + here(component, environment), component,
                environment), person, reason);
    }

    /** Writes down what is live already, where nothing was deployed by Paseo yet. */
    @PostMapping("/record")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary record(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RecordRequest request) {
        Place place = place(person, Action.EDIT_ENVIRONMENT, "record what is live of " + here(component, environment),
                component, environment);
        return deployment(
                ways.record(place, lookups.versions().numbered(place.componentId(), component, request.version()),
                        person, request.reason()));
    }
}
