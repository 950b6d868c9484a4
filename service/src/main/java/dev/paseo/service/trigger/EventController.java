package dev.paseo.service.trigger;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What happened to components and elsewhere that concerns them, and what each trigger made of it. */
@RestController("triggerEvents")
@RequestMapping("/api/v1/components/{name}/events")
class EventController {

    private final EventViews views;

    EventController(EventViews views) {
        this.views = views;
    }

    /**
     * The newest, at most 50.
     *
     * @param before only those with a lower id: the cursor of the next page
     * @param commit only what happened to a commit, given whole or by its first 4 or more digits
     */
    @GetMapping
    List<EventViews.TriggerEventView> newest(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<Long> before, @RequestParam Optional<String> commit) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return views.newest(name, before, commit);
    }

    /** One event: what happened, every trigger considered, and what came of it. */
    @GetMapping("/{id}")
    EventViews.TriggerEventView one(@AuthenticationPrincipal Person person, @PathVariable String name,
            @PathVariable long id) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return views.one(name, id);
    }
}
