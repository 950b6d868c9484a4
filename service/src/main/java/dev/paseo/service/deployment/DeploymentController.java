package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.deployment.DeploymentViews.DeploymentView;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.request.Requests;
import dev.paseo.service.request.Wanted;
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
    private final Interventions interventions;
    private final DeploymentViews views;
    private final DeploymentSummaries summaries;
    private final NamedPlaces places;

    DeploymentController(Requests requests, Interventions interventions, DeploymentViews views,
            DeploymentSummaries summaries, NamedPlaces places) {
        this.requests = requests;
        this.interventions = interventions;
        this.views = views;
        this.summaries = summaries;
        this.places = places;
    }

    /** Requests a version into an environment. */
    @PostMapping("/deployments")
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary promote(@AuthenticationPrincipal Person person, @RequestBody PromotionRequest request) {
        Environments.Place place = places.place(person, Action.PROMOTE,
                "request versions of " + request.component() + " into " + request.environment(), request.component(),
                request.environment());
        request.emergency()
                .ifPresent(why -> Permission.require(person, Action.EMERGENCY,
                        "call it an emergency for " + request.component() + " in " + request.environment(),
                        Optional.of(request.component()), Optional.of(request.environment())));
        Versions.Version version = places.version(place, request.version());
        long id = requests.request(new Wanted(place, version, Kind.PROMOTION, Optional.of(person),
                new Cause.Asked(person.name(), request.comment().or(request::emergency)),
                request.emergency().filter(why -> !why.isBlank())));
        return summaries.of(id);
    }

    private Deployment look(Person person, long id) {
        Permission.require(person, Action.LOOK);
        return summaries.row(id);
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
        DeploymentSummary before = summaries.of(look(person, id));
        Permission.require(person, Action.PROMOTE,
                "withdraw or undo deployments of " + before.component() + " in " + before.environment(),
                Optional.of(before.component()), Optional.of(before.environment()));
        interventions.cancel(id, person);
        return summaries.of(id);
    }

    /** Whether it goes on, where its plan asks a person. */
    record AnswerRequest(boolean yes) {}

    /** Continues a paused canary, or undoes it. */
    @PostMapping("/deployments/{id}/answer")
    DeploymentSummary answer(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody AnswerRequest request) {
        DeploymentSummary before = summaries.of(look(person, id));
        Permission.require(person, Action.PROMOTE,
                "say whether a deployment of " + before.component() + " in " + before.environment() + " goes on",
                Optional.of(before.component()), Optional.of(before.environment()));
        interventions.answer(id, person, request.yes());
        return summaries.of(id);
    }
}
