package dev.paseo.service.signin;

import dev.paseo.core.access.Person;
import dev.paseo.service.access.PersonalTokens;
import dev.paseo.service.access.SigningIn;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/** Finds out who asks, by a session's cookie or a personal token. */
class SignInFilter extends OncePerRequestFilter {

    private static final String BEARER = "Bearer ";
    private static final String BASIC = "Basic ";

    private final PersonalTokens tokens;
    private final SigningIn signingIn;
    private final SessionCookie cookie;

    SignInFilter(PersonalTokens tokens, SigningIn signingIn, SessionCookie cookie) {
        this.tokens = tokens;
        this.signingIn = signingIn;
        this.cookie = cookie;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/api/") && !request.getRequestURI().startsWith("/actuator/");
    }

    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        person(request).ifPresent(person -> SecurityContextHolder.getContext().setAuthentication(
                UsernamePasswordAuthenticationToken.authenticated(person, null, List.of())));
        chain.doFilter(request, response);
    }

    private Optional<Person> person(HttpServletRequest request) {
        return bearer(request).or(() -> basic(request)).map(tokens::bearer)
                .orElseGet(() -> cookie.of(request).flatMap(signingIn::bySession));
    }

    static Optional<String> bearer(HttpServletRequest request) {
        return Optional.ofNullable(request.getHeader("Authorization"))
                .filter(header -> header.startsWith(BEARER)).map(header -> header.substring(BEARER.length()));
    }

    /**
     * Calendars know only HTTP Basic: they send a token as the password. Only for looking at feeds: a browser sends
     * such credentials by itself, so they may not count for anything that changes something.
     */
    private static Optional<String> basic(HttpServletRequest request) {
        boolean feed = request.getMethod().equals("GET") && request.getRequestURI().endsWith(".ics");
        return Optional.ofNullable(request.getHeader("Authorization"))
                .filter(header -> feed && header.startsWith(BASIC)).map(header -> {
                    try {
                        String decoded = new String(
                                Base64.getDecoder().decode(header.substring(BASIC.length()).strip()),
                                StandardCharsets.UTF_8);
                        return decoded.substring(decoded.indexOf(':') + 1);
                    } catch (IllegalArgumentException noBase64) {
                        return "";
                    }
                });
    }
}
