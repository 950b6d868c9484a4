package dev.paseo.service.releaserecord;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is new, for an announcement. */
@RestController
@RequestMapping("/api/v1/release-notes")
class ReleaseNotesController {

    private static final Duration USUAL = Duration.ofDays(7);

    private final Announcing announcing;
    private final Components components;
    private final Versions versions;
    private final ServiceClock clock;

    ReleaseNotesController(Announcing announcing, Components components, Versions versions, ServiceClock clock) {
        this.announcing = announcing;
        this.components = components;
        this.versions = versions;
        this.clock = clock;
    }

    /**
     * Notes of what is new, from the commits, as Markdown: in a version of a component, or in an environment over a
     * period. Merges are left out, and what several commits say alike is said once.
     *
     * @param component   of which versions are compared
     * @param to          the version that is announced
     * @param from        the one before it; none: all that the version has, at most 200 commits
     * @param environment instead of a component: what differs between what was live there at since and at until
     * @param since       RFC 3339; none: 7 days before until
     * @param until       RFC 3339; none: now
     */
    @GetMapping(produces = "text/markdown;charset=utf-8")
    String notes(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> from, @RequestParam Optional<String> to,
            @RequestParam Optional<String> environment, @RequestParam Optional<Instant> since,
            @RequestParam Optional<Instant> until) {
        Permission.require(person, Action.LOOK, component, environment);
        if (component.isPresent() == environment.isPresent()) {
            throw Refusal.invalid("/component", "should be given, or environment: one of the two");
        }
        if (environment.isPresent()) {
            Instant end = until.orElseGet(clock::now);
            Instant begin = since.orElse(end.minus(USUAL));
            if (!begin.isBefore(end)) {
                throw Refusal.invalid("/since", "should be before until");
            }
            return announcing.in(environment.get(), begin, end,
                    name -> person.may(Action.LOOK, Optional.of(name), environment));
        }
        Components.RegisteredComponent known = components.named(component.get());
        String number = to.orElseThrow(() -> Refusal.invalid("/to", "should be the version that is announced"));
        return announcing.between(from.map(before -> versions.numbered(known.id(), known.name(), before)),
                versions.numbered(known.id(), known.name(), number));
    }
}
