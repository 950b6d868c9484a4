package dev.paseo.service.decision;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.deployment.DeploymentSummaries;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.picture.Pictures;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What people say about a deployment. */
@RestController
@RequestMapping("/api/v1/deployments/{id}")
class DecisionController {

    /** A decision; {@code subject} is the digest that the person saw, without which nothing is approved. */
    record DecisionRequest(boolean yes, Optional<String> comment, Optional<String> subject) {}

    /** {@code outcome}: {@code done}, {@code failed} or {@code cleared}; {@code picture} is one that was uploaded. */
    record ItemRequest(String item, Optional<String> outcome, Optional<String> note, Optional<String> picture) {}

    /** Who decides in the caller's place. */
    record HandOnRequest(String to) {}

    record ReviewRequest(String comment) {}

    private final Deciding deciding;
    private final HandingOn handingOn;
    private final DeploymentSummaries summaries;
    private final Pictures pictures;

    DecisionController(Deciding deciding, HandingOn handingOn, DeploymentSummaries summaries, Pictures pictures) {
        this.deciding = deciding;
        this.handingOn = handingOn;
        this.summaries = summaries;
        this.pictures = pictures;
    }

    private void require(Person person, String what, long id) {
        Permission.require(person, Action.LOOK);
        DeploymentSummary about = summaries.of(id);
        Permission.require(person, Action.DECIDE, what + " " + about.component() + " in " + about.environment(),
                Optional.of(about.component()), Optional.of(about.environment()));
    }

    private DeploymentSummary after(long id) {
        return summaries.of(id);
    }

    /** Approves or rejects exactly what a waiting deployment would deploy now, or takes an approval back. */
    @PostMapping("/decision")
    DeploymentSummary give(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody DecisionRequest request) {
        require(person, "decide about", id);
        deciding.decide(id, person, request.yes(), request.comment().orElse(""), request.subject());
        return after(id);
    }

    /** Takes back your own approval, as long as the deployment waits. */
    @DeleteMapping("/decision")
    DeploymentSummary takeBack(@AuthenticationPrincipal Person person, @PathVariable long id) {
        require(person, "take back a decision about", id);
        deciding.takeBack(id, person);
        return after(id);
    }

    /** Ticks an item of a waiting deployment's checklist. */
    @PostMapping("/ticks")
    DeploymentSummary tick(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody ItemRequest request) {
        require(person, "tick items of", id);
        deciding.tick(id, person, request.item(), request.outcome(), request.note(),
                request.picture().map(pictures::known));
        return after(id);
    }

    /** Hands your decision about a deployment on to another. */
    @PostMapping("/handover")
    DeploymentSummary handOn(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody HandOnRequest request) {
        require(person, "hand on decisions about", id);
        handingOn.handOn(id, person, request.to());
        return after(id);
    }

    /** Reviews a deployment that went past its gate, or live under loosened rules; by somebody else. */
    @PostMapping("/review")
    DeploymentSummary review(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody ReviewRequest request) {
        require(person, "review", id);
        deciding.review(id, person, request.comment().strip());
        return after(id);
    }
}
