package dev.paseo.service.calendar;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** When an environment is open, closed and deployed to. */
@RestController
@RequestMapping("/api/v1/environments/{name}")
class CalendarController {

    private final CalendarViews views;

    CalendarController(CalendarViews views) {
        this.views = views;
    }

    /** An environment's deployments, closures and closed periods of a stretch of time. */
    @GetMapping("/calendar")
    CalendarViews.CalendarView calendar(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.empty(), Optional.of(name));
        return views.view(name);
    }

    /**
     * The same as an iCalendar feed, for calendars that people have; signed in with HTTP Basic, the password being a
     * personal token.
     */
    @GetMapping(value = "/calendar.ics", produces = "text/calendar;charset=utf-8")
    String feed(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.empty(), Optional.of(name));
        return views.feed(name);
    }
}
