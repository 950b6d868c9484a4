package dev.paseo.service.loosening;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Loosenings that wait for a second person. */
@RestController
@RequestMapping("/api/v1/loosenings")
class LooseningController {

    /**
     * What somebody says about a loosening.
     *
     * @param comment wanted where it is refused
     * @param subject of what was looked at, as the loosening tells it
     */
    record WordRequest(boolean yes, @Size(max = 2000) Optional<String> comment, String subject) {}

    private final Agreements agreements;

    LooseningController(Agreements agreements) {
        this.agreements = agreements;
    }

    /** Those that wait, and the newest 50 of those that have ended. */
    @GetMapping
    List<Agreements.LooseningView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return agreements.newest();
    }

    /** A change that loosens rules, and waits for a second person. */
    @GetMapping("/{id}")
    Agreements.LooseningView one(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return agreements.one(id);
    }

    /**
     * Agrees to a loosening, or refuses it: somebody whom the environment's rules name, other than who asked for it.
     */
    @PostMapping("/{id}/words")
    Agreements.LooseningView say(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody WordRequest request) {
        Permission.require(person, Action.LOOK);
        return agreements.say(id, person, request.yes(), request.comment().orElse(""), request.subject());
    }

    /** Withdraws a loosening: whoever asked for it. */
    @PostMapping("/{id}/withdrawal")
    Agreements.LooseningView withdraw(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return agreements.withdraw(id, person);
    }
}
