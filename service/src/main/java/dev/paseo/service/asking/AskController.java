package dev.paseo.service.asking;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.AskedAct;
import dev.paseo.core.access.Person;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Worded;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
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

/** What somebody who may not do it oneself asks of those who may. */
@RestController
@RequestMapping("/api/v1/asks")
class AskController {

    private static final String TRIED = "ask anything of others";

    /**
     * What is asked.
     *
     * @param act     promote, roll-back, hold or lift-hold
     * @param version wanted where it is to be promoted, and only there
     * @param words   why
     */
    record AskRequest(@NotBlank String act, @NotBlank String component, @NotBlank String environment,
            Optional<String> version, @NotBlank @Size(max = 1000) String words) {}

    /** Why it is not done. */
    record DeclineRequest(@NotBlank @Size(max = 1000) String answer) {}

    private final Asks asks;
    private final Environments environments;

    AskController(Asks asks, Environments environments) {
        this.asks = asks;
        this.environments = environments;
    }

    /** What you asked of others, the newest first; at most 50. */
    @GetMapping
    List<Asks.AskedView> yours(@AuthenticationPrincipal Person person) {
        Permission.unlimited(person, TRIED);
        return asks.of(person);
    }

    /**
     * Asks those who may to do what you may not; it waits for them until one of them does it or declines, and you are
     * told. At most 20 at a time.
     */
    @PostMapping
    Asks.AskedView ask(@AuthenticationPrincipal Person person, @Valid @RequestBody AskRequest request) {
        Permission.unlimited(person, TRIED);
        Permission.require(person, Action.LOOK, Optional.of(request.component()), Optional.of(request.environment()));
        AskedAct act = Worded.read(AskedAct.class, "/act", request.act());
        if (act.ofVersion() != request.version().isPresent()) {
            throw Refusal.invalid("/version",
                    act.ofVersion() ? "should be given to promote one" : "should be given only to promote one");
        }
        return asks.ask(person, act, environments.place(request.component(), request.environment()),
                request.version(), request.words().strip());
    }

    /** Says that it is not done, and why; whoever asked is told. For those who may do it. */
    @PostMapping("/{id}/refusal")
    Asks.AskedView decline(@AuthenticationPrincipal Person person, @PathVariable long id,
            @Valid @RequestBody DeclineRequest request) {
        Permission.unlimited(person, TRIED);
        return asks.decline(person, id, request.answer().strip());
    }

    /** Asks it no more: whoever asked. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void drop(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.unlimited(person, TRIED);
        asks.drop(person, id);
    }
}
