package dev.paseo.service.access;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletRequest;
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

/** Personal tokens: for their owner, and to list and revoke for whoever manages accounts. */
@RestController
@RequestMapping("/api/v1")
class TokenController {

    private final PersonalTokens tokens;
    private final SigningIn signingIn;
    private final Accounts accounts;

    TokenController(PersonalTokens tokens, SigningIn signingIn, Accounts accounts) {
        this.tokens = tokens;
        this.signingIn = signingIn;
        this.accounts = accounts;
    }

    record TokenRequest(@NotBlank @Size(max = 64) String name, @NotBlank @Size(max = Passwords.LONGEST) String password,
            @NotBlank @Size(max = 120) String description) {}

    record TokenView(String token) {}

    /**
     * What a token is to be.
     *
     * @param may       words such as {@code publish} or {@code promote}; none: all that its owner may
     * @param component the only component that it may do this for
     * @param days      how long it is good, 1 to 365; without it 90
     */
    record NewToken(@NotBlank @Size(max = 120) String description, Optional<List<String>> may,
            Optional<String> component,
            Optional<Integer> days) {}

    /** Makes a token by name and password. It may do all that its owner may, for 90 days, and is shown this once. */
    @PostMapping("/tokens")
    TokenView signIn(@Valid @RequestBody TokenRequest request, HttpServletRequest from) {
        AccountMapper.AccountRow account = signingIn.check(request.name(), request.password(), from.getRemoteAddr());
        return new TokenView(tokens.make(account.id(), account.name(),
                new PersonalTokens.Wanted(request.description(), List.of(), Optional.empty(),
                        PersonalTokens.USUAL_DAYS)));
    }

    private long mine(Person person, String name, String tried) {
        Permission.unlimited(person, tried);
        return person.name().equals(name) ? person.id() : managed(person, name, tried);
    }

    private long managed(Person person, String name, String tried) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, tried + " of others");
        return accounts.idOf(name);
    }

    /** Lists an account's tokens, never the tokens themselves. */
    @GetMapping("/accounts/{name}/tokens")
    List<PersonalTokens.Listed> list(@AuthenticationPrincipal Person person, @PathVariable String name) {
        return tokens.of(mine(person, name, "see tokens"));
    }

    /** Makes a token of your own, limited to what it is for. It is shown this once. */
    @PostMapping("/accounts/{name}/tokens")
    @ResponseStatus(HttpStatus.CREATED)
    TokenView make(@AuthenticationPrincipal Person person, @PathVariable String name,
            @Valid @RequestBody NewToken wanted) {
        Permission.unlimited(person, "make tokens");
        if (!person.name().equals(name)) {
            throw Refusal.notAllowed("A token is made by its owner: nobody acts in another's name");
        }
        return new TokenView(tokens.make(person.id(), person.name(),
                new PersonalTokens.Wanted(wanted.description(), wanted.may().orElse(List.of()), wanted.component(),
                        wanted.days().orElse(PersonalTokens.USUAL_DAYS))));
    }

    /** Revokes a token; it is refused from now on. */
    @DeleteMapping("/accounts/{name}/tokens/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revoke(@AuthenticationPrincipal Person person, @PathVariable String name, @PathVariable long id) {
        tokens.revoke(mine(person, name, "revoke tokens"), name, id, person.name());
    }
}
