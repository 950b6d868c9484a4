package dev.paseo.service.deputy;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Deputies: who decides in another's place for a time. */
@RestController
@RequestMapping("/api/v1/deputies")
class DeputyController {

    /** {@code deputy} decides and ticks in the place of {@code account}, from and until. */
    record DeputyView(long id, String account, String deputy, Instant from, Instant until, String setBy) {}

    /**
     * {@code account} is the caller, or somebody else where the caller manages accounts; {@code from} is now where it
     * is not said; at most 366 days.
     */
    record DeputyRequest(Optional<String> account, String deputy, Optional<Instant> from, Instant until) {}

    private final Deputies deputies;
    private final ServiceClock clock;

    DeputyController(Deputies deputies, ServiceClock clock) {
        this.deputies = deputies;
        this.clock = clock;
    }

    /** Lists deputies of now and to come: your own, or all for who manages accounts. */
    @GetMapping
    List<DeputyView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return deputies.seenBy(person).stream()
                .map(row -> new DeputyView(row.id(), row.account(), row.deputy(), row.from(), row.until(), row.setBy()))
                .toList();
    }

    /** Names a deputy, who decides in another person's place for a time. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    List<DeputyView> set(@AuthenticationPrincipal Person person, @RequestBody DeputyRequest request) {
        Permission.require(person, Action.LOOK);
        Permission.unlimited(person, "name or end deputies");
        deputies.set(request.account().orElse(person.name()), request.deputy(), request.from().orElseGet(clock::now),
                request.until(), person);
        return all(person);
    }

    /** Ends a deputy's time at once: by either of the two, or by who manages accounts. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        Permission.unlimited(person, "name or end deputies");
        deputies.end(id, person);
    }
}
