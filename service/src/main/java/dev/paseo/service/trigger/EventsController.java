package dev.paseo.service.trigger;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What happened anywhere, and what each trigger made of it. */
@RestController
@RequestMapping("/api/v1/trigger-events")
class EventsController {

    private static final List<String> KINDS = List.of("push", "tag", "clock", "run", "live", "arrival");
    private static final int MOST = 200;

    private final EventViews views;

    EventsController(EventViews views) {
        this.views = views;
    }

    /**
     * What happened to all components, the newest first, or the oldest, and what each trigger made of it.
     *
     * @param kind    push, tag, clock, run, live or arrival
     * @param by      only what this account brought about, or what stands there where no account did
     * @param started only what started a run, or only what started none
     * @param after   the oldest first, those after this number; 0 from the very oldest on; not beside before
     * @param limit   at most so many, 1 to 200
     */
    @GetMapping
    EventViews.TriggerEventList events(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> kind,
            @RequestParam Optional<String> branch, @RequestParam Optional<String> by,
            @RequestParam Optional<Boolean> started, @RequestParam Optional<Instant> since,
            @RequestParam Optional<Instant> until, @RequestParam Optional<Long> before,
            @RequestParam Optional<Long> after,
            @RequestParam(defaultValue = "50") int limit) {
        Permission.require(person, Action.LOOK, component, Optional.empty());
        kind.filter(word -> !KINDS.contains(word)).ifPresent(word -> {
            throw Refusal.invalid("/kind", "should be one of " + String.join(", ", KINDS) + "; got “" + word + "”");
        });
        Cursor cursor = Cursor.of(before, after);
        return views.all(new EventMapper.EventsAsked(component.map(views::idOf).orElse(null), label.orElse(null),
                kind.orElse(null), branch.orElse(null), by.orElse(null), started.orElse(null), since.orElse(null),
                until.orElse(null), cursor.before(), cursor.after(), Math.clamp(limit, 1, MOST)));
    }
}
