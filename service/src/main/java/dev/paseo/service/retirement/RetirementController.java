package dev.paseo.service.retirement;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.retirement.Retirable;
import dev.paseo.core.retirement.Retirement;
import dev.paseo.core.text.Word;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.retirement.Retiring.Subject;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * Takes out of use what is needed no more. Its history stays, and it can be brought back. {@code what} is {@code
 * component}, {@code place}, {@code host}, {@code agent}, {@code environment} or {@code preview-template}.
 */
@RestController
@RequestMapping("/api/v1/retirements")
class RetirementController {

    /**
     * What would follow.
     *
     * @param hinders   why it cannot be retired now; empty where it can
     * @param follows   what follows, what keeps running where among it
     * @param removable whether something is live that could be removed with it
     */
    record RetirementView(List<String> hinders, List<String> follows, boolean removable) {}

    /** @param remove also removes what is live of it, by its recipe's removal */
    record RetirementRequest(String reason, boolean remove) {}

    /**
     * Something that is out of use.
     *
     * @param name        of a place its component's
     * @param environment of a place
     * @param at          when it was retired
     */
    record RetiredView(Retirable what, String name, Optional<String> environment, Instant at) {}

    private final Retiring retiring;
    private final RetirementFacts facts;

    RetirementController(Retiring retiring, RetirementFacts facts) {
        this.facts = facts;
        this.retiring = retiring;
    }

    /** Lists what is retired, of every kind, the newest first; at most 1000. */
    @GetMapping
    List<RetiredView> retired(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return retiring.retired().stream().filter(row -> mayBeToldOf(person, row)).map(RetirementController::view)
                .toList();
    }

    private static boolean mayBeToldOf(Person person, RetirementMapper.RetiredRow row) {
        return row.component() == null || person.may(Action.LOOK, Optional.of(row.component()),
                Optional.ofNullable(row.environment()));
    }

    private static RetiredView view(RetirementMapper.RetiredRow row) {
        return new RetiredView(Word.read(Retirable.class, row.what()).orElseThrow(), row.name(),
                Optional.ofNullable(row.environment()), row.at());
    }

    /** Says what hinders a retirement, and what would follow; nothing is done. */
    @GetMapping("/{what}/{name}")
    RetirementView look(@AuthenticationPrincipal Person person, @PathVariable String what, @PathVariable String name,
            @RequestParam Optional<String> environment,
            @RequestParam(defaultValue = "false") boolean remove) {
        Permission.require(person, Action.LOOK);
        Retirement.Facts now = facts.of(subject(what, name, environment));
        return new RetirementView(Retirement.hinders(now, remove), Retirement.follows(now, remove),
                now.live().stream().anyMatch(Retirement.Live::removable));
    }

    /** Retires a component, place, host, agent, environment or preview template; its history stays. */
    @PutMapping("/{what}/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void retire(@AuthenticationPrincipal Person person, @PathVariable String what, @PathVariable String name,
            @RequestParam Optional<String> environment,
            @RequestBody RetirementRequest request) {
        Subject subject = subject(what, name, environment);
        require(person, "retire ", subject);
        if (request.reason().isBlank() || request.reason().length() > 1000) {
            throw Refusal.invalid("/reason", "Say why " + name + " is retired, in at most 1000 characters");
        }
        retiring.retire(subject, request.reason().strip(), request.remove(), person);
    }

    /** Brings back into use what was retired. */
    @DeleteMapping("/{what}/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bringBack(@AuthenticationPrincipal Person person, @PathVariable String what, @PathVariable String name,
            @RequestParam Optional<String> environment) {
        Subject subject = subject(what, name, environment);
        require(person, "bring back ", subject);
        retiring.bringBack(subject, person);
    }

    private static void require(Person person, String act, Subject subject) {
        String tried = act + subject.words();
        switch (subject.what()) {
            case COMPONENT -> Permission.require(person, Action.REGISTER_COMPONENT, tried, Optional.of(subject.name()),
                    Optional.empty());
            case PLACE -> Permission.require(person, Action.EDIT_ENVIRONMENT, tried, Optional.of(subject.name()),
                    subject.environment());
            case ENVIRONMENT -> Permission.require(person, Action.EDIT_ENVIRONMENT, tried, Optional.empty(),
                    Optional.of(subject.name()));
            case HOST, PREVIEW_TEMPLATE -> Permission.require(person, Action.EDIT_ENVIRONMENT, tried);
            case AGENT -> Permission.require(person, Action.ENROL_AGENT, tried);
        }
    }

    private static Subject subject(String what, String name, Optional<String> environment) {
        Retirable kind = Word.read(Retirable.class, what).orElseThrow(() -> Refusal.invalid("/what",
                "should be one of " + Arrays.stream(Retirable.values()).map(Word::of).collect(Collectors.joining(", "))
                        + "; got “" + what + "”"));
        if (kind == Retirable.PLACE != environment.isPresent()) {
            throw Refusal.invalid("/environment", "Only a place is named with an environment");
        }
        return new Subject(kind, name, environment);
    }
}
