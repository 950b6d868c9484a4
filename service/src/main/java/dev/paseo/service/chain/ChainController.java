package dev.paseo.service.chain;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.chain.Following.LedView;
import dev.paseo.service.permission.Permission;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Upstream and downstream across components, and what one change led to. */
@RestController
@RequestMapping("/api/v1")
class ChainController {

    private final ChainViews views;

    ChainController(ChainViews views) {
        this.views = views;
    }

    /** All components, what starts what, and the newest changes. */
    @GetMapping("/chain")
    ChainViews.ChainView chain(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return views.chain();
    }

    /** What an event led to, across all components. */
    @GetMapping("/components/{name}/events/{id}/consequences")
    List<LedView> ofEvent(@AuthenticationPrincipal Person person, @PathVariable String name, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return views.ofEvent(id);
    }

    /** Everything that a run led to. */
    @GetMapping("/runs/{component}/{number}/consequences")
    List<LedView> ofRun(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number) {
        Permission.require(person, Action.LOOK);
        return views.ofRun(component, number);
    }

    /** Everything that a deployment led to. */
    @GetMapping("/deployments/{id}/consequences")
    List<LedView> ofDeployment(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return views.ofDeployment(id);
    }

    /** Lists everything that a version led to. */
    @GetMapping("/versions/{component}/{number}/consequences")
    List<LedView> ofVersion(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK);
        return views.ofVersion(component, number);
    }
}
