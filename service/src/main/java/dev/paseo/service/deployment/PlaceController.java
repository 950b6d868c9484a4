package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.permission.Permission;
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

/** One component in one environment: what is there, and what people do about it. */
@RestController
@RequestMapping("/api/v1/places/{component}/{environment}")
class PlaceController {

    /** @param to the version to go back to; the last good one where absent */
    record RollbackRequest(Optional<String> to, String reason, Optional<Boolean> emergency) {}

    /** @param emergency the reason for which it goes past unmet criteria */
    record RedeployRequest(Optional<String> comment, Optional<String> emergency) {}

    private final WaysBack ways;
    private final PlaceViews views;
    private final PlacePlans plans;
    private final NamedPlaces places;
    private final DeploymentSummaries summaries;

    PlaceController(WaysBack ways, PlaceViews views, PlacePlans plans, NamedPlaces places,
            DeploymentSummaries summaries) {
        this.ways = ways;
        this.views = views;
        this.plans = plans;
        this.places = places;
        this.summaries = summaries;
    }

    /** One place: what is live on its hosts since when, what waits, holds and drift. */
    @GetMapping
    PlaceViews.PlaceView place(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment) {
        return views
                .view(places.place(person, Action.LOOK, "look at " + NamedPlaces.here(component, environment),
                        component, environment));
    }

    /** What would happen if this version were deployed there now. */
    @GetMapping("/plan")
    PlacePlans.DeploymentPlanView plan(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment, @RequestParam String version) {
        Place place = places.place(person, Action.LOOK, "look at " + NamedPlaces.here(component, environment),
                component, environment);
        return plans.plan(place, places.version(place, version), person.name());
    }

    /** Deploys the last good version again, or a named one, and holds the place. */
    @PostMapping("/rollback")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary rollback(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RollbackRequest request) {
        Place place = places.place(person, Action.ROLL_BACK, "roll back " + NamedPlaces.here(component, environment),
                component,
                environment);
        boolean emergency = request.emergency().orElse(false);
        if (emergency) {
            Permission.require(person, Action.EMERGENCY,
                    "call it an emergency for " + NamedPlaces.here(component, environment),
                    Optional.of(component), Optional.of(environment));
        }
        return summaries.of(ways.rollback(place, person, request.to(), request.reason().strip(), emergency));
    }

    /** Deploys what is live once more, with the settings and secrets of now. */
    @PostMapping("/redeployment")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary redeploy(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RedeployRequest request) {
        Place place = places.place(person, Action.PROMOTE, "redeploy " + NamedPlaces.here(component, environment),
                component, environment);
        request.emergency()
                .ifPresent(why -> Permission.require(person, Action.EMERGENCY,
                        "call it an emergency for " + NamedPlaces.here(component, environment), Optional.of(component),
                        Optional.of(environment)));
        return summaries.of(
                ways.redeploy(place, person, request.comment(), request.emergency().filter(why -> !why.isBlank())));
    }
}
