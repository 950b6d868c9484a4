package dev.paseo.service.signin;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Scope;
import dev.paseo.service.access.Passwords;
import dev.paseo.service.access.PersonalTokens;
import dev.paseo.service.access.SettingPasswords;
import dev.paseo.service.access.SigningIn;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class SignInController {

    record Credentials(@NotBlank @Size(max = 64) String name,
            @NotBlank @Size(max = Passwords.LONGEST) String password) {}

    /** One's own password, by the one before. */
    record NewPassword(@NotBlank @Size(max = Passwords.LONGEST) String current,
            @NotBlank @Size(max = Passwords.LONGEST) String password) {}

    /** A password by a one-time code. */
    record PasswordByCode(@NotBlank @Size(max = 100) String code,
            @NotBlank @Size(max = Passwords.LONGEST) String password) {}

    /** Whose password it is now. */
    record WhoseView(String name) {}

    /**
     * Who is signed in, in which groups, and what they may do everywhere.
     *
     * @param there what they may beside that, for one component or in one environment
     * @param limit all that the token may with which they are signed in, in words; absent where it may all that they
     *              may
     */
    record MeView(String name, List<String> groups, List<String> may, List<MayThere> there, Optional<String> limit) {}

    /**
     * What may be done by a role that holds for one component, in one environment, or both.
     *
     * @param component   absent: of every component
     * @param environment absent: everywhere
     */
    record MayThere(String action, Optional<String> component, Optional<String> environment) {}

    private final SigningIn signingIn;
    private final SettingPasswords passwords;
    private final PersonalTokens tokens;
    private final SessionCookie cookie;

    SignInController(SigningIn signingIn, SettingPasswords passwords, PersonalTokens tokens, SessionCookie cookie) {
        this.signingIn = signingIn;
        this.passwords = passwords;
        this.tokens = tokens;
        this.cookie = cookie;
    }

    /** Who is signed in, and what they may do. */
    @GetMapping("/session")
    MeView me(@AuthenticationPrincipal Person person) {
        if (person == null) {
            throw Refusal.signedOut("Nobody is signed in.");
        }
        List<String> may = Arrays.stream(Action.values())
                .filter(action -> person.may(action, Optional.empty(), Optional.empty())).map(Enum::name).toList();
        List<MayThere> there = person.grants().stream()
                .filter(grant -> grant.component().isPresent() || grant.environment().isPresent())
                .flatMap(grant -> Arrays.stream(Action.values())
                        .filter(action -> grant.role().allows(action) && person.mayAnywhere(action))
                        .map(action -> new MayThere(action.name(), grant.component(), grant.environment())))
                .distinct().toList();
        return new MeView(person.name(), person.groups().stream().sorted().toList(), may, there,
                person.scope().map(Scope::words));
    }

    /** Signs in with a password; the answer sets the cookie of the session. */
    @PostMapping("/session")
    ResponseEntity<Void> signIn(@Valid @RequestBody Credentials credentials, HttpServletRequest request) {
        return with(signingIn.signIn(credentials.name(), credentials.password(), request.getRemoteAddr()),
                SigningIn.SESSION, request);
    }

    /** Ends the session. */
    @DeleteMapping("/session")
    ResponseEntity<Void> signOut(HttpServletRequest request) {
        cookie.of(request).ifPresent(signingIn::signOut);
        SignInFilter.bearer(request).ifPresent(tokens::revoke);
        return with("", Duration.ZERO, request);
    }

    private ResponseEntity<Void> with(String token, Duration age, HttpServletRequest request) {
        return ResponseEntity.noContent().header(HttpHeaders.SET_COOKIE, cookie.header(token, age, request)).build();
    }

    /** Changes your own password. All sessions end; tokens stay. */
    @PutMapping("/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void change(@AuthenticationPrincipal Person person, @Valid @RequestBody NewPassword request,
            HttpServletRequest from) {
        Permission.unlimited(person, "change passwords");
        passwords.change(person.name(), request.current(), request.password(), from.getRemoteAddr());
    }

    /** Sets a password by a one-time code from an administrator. */
    @PutMapping("/password-by-code")
    WhoseView byCode(@Valid @RequestBody PasswordByCode request, HttpServletRequest from) {
        return new WhoseView(passwords.byCode(request.code().strip(), request.password(), from.getRemoteAddr()));
    }
}
