package dev.paseo.service.whereabouts;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Whereabouts: what is live where. */
@RestController
@RequestMapping("/api/v1/whereabouts")
class WhereaboutsController {

    private final WhereaboutsViews views;
    private final PastWhereabouts past;

    WhereaboutsController(WhereaboutsViews views, PastWhereabouts past) {
        this.views = views;
        this.past = past;
    }

    /**
     * Shows which version is where, 25 components at a time in the order of their names; {@code component}: only that
     * one.
     */
    @GetMapping
    WhereaboutsViews.WhereaboutsView whereabouts(@AuthenticationPrincipal Person person,
            @RequestParam(defaultValue = "") String component, @RequestParam(defaultValue = "") String after) {
        Permission.require(person, Action.LOOK);
        return views.now(person, component, after);
    }

    /**
     * Shows what was live at a past moment, everywhere, or for one component or environment.
     */
    @GetMapping("/at")
    PastWhereabouts.PastView at(@AuthenticationPrincipal Person person, @RequestParam Instant moment,
            @RequestParam(defaultValue = "") String component, @RequestParam(defaultValue = "") String environment,
            @RequestParam(defaultValue = "") String after) {
        Permission.require(person, Action.LOOK);
        return past.at(moment, component, environment, after);
    }
}
