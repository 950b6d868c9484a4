package dev.paseo.service.signin;

import dev.paseo.service.settings.Settings;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;

/**
 * The cookie that a session's token is in. Where the service is reached by https its name begins with {@code __Host-},
 * so that a browser sends it by https alone, to this host alone, and takes it from nobody else (RFC 6265bis).
 */
@Component
class SessionCookie {

    private static final String NAME = "paseo-session";
    private static final String HOST = "__Host-";

    private final boolean https;

    SessionCookie(Settings settings) {
        this.https = settings.address().startsWith("https://");
    }

    private boolean secure(HttpServletRequest request) {
        return https || request.isSecure();
    }

    String header(String token, Duration age, HttpServletRequest request) {
        return header(NAME, token, age, "Strict", request);
    }

    /** Another cookie of ours, which also comes back with a browser that is sent here from elsewhere. */
    String lax(String name, String value, Duration age, HttpServletRequest request) {
        return header(name, value, age, "Lax", request);
    }

    private String header(String name, String value, Duration age, String sameSite, HttpServletRequest request) {
        boolean secure = secure(request);
        return ResponseCookie.from(secure ? HOST + name : name, value).httpOnly(true).secure(secure).sameSite(sameSite)
                .path("/").maxAge(age).build().toString();
    }

    /** The token; one that came by plain http counts for nothing where https is to be used. */
    Optional<String> of(HttpServletRequest request) {
        return named(NAME, request);
    }

    Optional<String> named(String plain, HttpServletRequest request) {
        String name = secure(request) ? HOST + plain : plain;
        return Stream.ofNullable(request.getCookies()).flatMap(Arrays::stream)
                .filter(cookie -> cookie.getName().equals(name)).map(Cookie::getValue).findFirst();
    }
}
