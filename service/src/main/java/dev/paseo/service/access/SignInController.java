package dev.paseo.service.access;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
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
import org.springframework.http.ResponseCookie;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class SignInController {

    record Credentials(@NotBlank @Size(max = 64) String name, @NotBlank @Size(max = Accounts.LONGEST_PASSWORD) String password) {}

    record TokenRequest(@NotBlank @Size(max = 64) String name, @NotBlank @Size(max = Accounts.LONGEST_PASSWORD) String password,
            @NotBlank @Size(max = 120) String label) {}

    record TokenView(String token) {}

    /** Who is signed in, in which groups, and what they may do everywhere. */
    record MeView(String name, List<String> groups, List<String> may) {}

    private final Accounts accounts;

    SignInController(Accounts accounts) {
        this.accounts = accounts;
    }

    @GetMapping("/session")
    MeView me(@AuthenticationPrincipal Person person) {
        if (person == null) {
            throw Refusal.signedOut("Nobody is signed in.");
        }
        List<String> may = Arrays.stream(Action.values())
                .filter(action -> person.may(action, Optional.empty(), Optional.empty())).map(Enum::name).toList();
        return new MeView(person.name(), person.groups().stream().sorted().toList(), may);
    }

    @PostMapping("/session")
    ResponseEntity<Void> signIn(@Valid @RequestBody Credentials credentials) {
        return cookie(accounts.signIn(credentials.name(), credentials.password()), Duration.ofHours(12));
    }

    @DeleteMapping("/session")
    ResponseEntity<Void> signOut(HttpServletRequest request) {
        SignInFilter.cookie(request).ifPresent(accounts::signOut);
        SignInFilter.bearer(request).ifPresent(accounts::revoke);
        return cookie("", Duration.ZERO);
    }

    private static ResponseEntity<Void> cookie(String token, Duration age) {
        ResponseCookie cookie = ResponseCookie.from(SignInFilter.COOKIE, token)
                .httpOnly(true).sameSite("Strict").path("/").maxAge(age).build();
        return ResponseEntity.noContent().header(HttpHeaders.SET_COOKIE, cookie.toString()).build();
    }

    /** A personal token, good for 90 days. It is shown this once. */
    @PostMapping("/tokens")
    TokenView token(@Valid @RequestBody TokenRequest request) {
        return new TokenView(accounts.tokenFor(request.name(), request.password(), request.label()));
    }
}
