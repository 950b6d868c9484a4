package dev.paseo.service.signin;

import dev.paseo.service.database.Json;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.security.oauth2.client.web.AuthorizationRequestRepository;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;

/**
 * What a browser was sent to the provider with, kept in a cookie of that browser for ten minutes: whoever comes back
 * with another state than it left with is not signed in, and any replica can tell.
 */
@Component
class ProviderCookie implements AuthorizationRequestRepository<OAuth2AuthorizationRequest> {

    private static final String NAME = "paseo-to-provider";
    private static final Duration AGE = Duration.ofMinutes(10);

    /** What is needed to go on; all of it is this browser's own. */
    record PendingSignIn(String authorizationUri, String clientId, String redirectUri, Set<String> scopes, String state,
            Map<String, String> parameters, Map<String, String> attributes) {}

    private final Json json;
    private final SessionCookie cookies;

    ProviderCookie(Json json, SessionCookie cookies) {
        this.json = json;
        this.cookies = cookies;
    }

    private static Map<String, String> texts(Map<String, Object> values) {
        return values.entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, value -> String.valueOf(value.getValue())));
    }

    @Override
    public void saveAuthorizationRequest(@Nullable OAuth2AuthorizationRequest request, HttpServletRequest from,
            HttpServletResponse response) {
        if (request == null) {
            response.addHeader(HttpHeaders.SET_COOKIE, cookies.lax(NAME, "", Duration.ZERO, from));
            return;
        }
        PendingSignIn kept = new PendingSignIn(request.getAuthorizationUri(), request.getClientId(),
                String.valueOf(request.getRedirectUri()), request.getScopes(), String.valueOf(request.getState()),
                texts(request.getAdditionalParameters()), texts(request.getAttributes()));
        response.addHeader(HttpHeaders.SET_COOKIE, cookies.lax(NAME, Base64.getUrlEncoder().withoutPadding()
                .encodeToString(json.write(kept).getBytes(StandardCharsets.UTF_8)), AGE, from));
    }

    @Override
    public @Nullable OAuth2AuthorizationRequest loadAuthorizationRequest(HttpServletRequest request) {
        return cookies.named(NAME, request).map(value -> {
            try {
                PendingSignIn kept = json.read(new String(Base64.getUrlDecoder().decode(value), StandardCharsets.UTF_8),
                        PendingSignIn.class);
                return OAuth2AuthorizationRequest.authorizationCode().authorizationUri(kept.authorizationUri())
                        .clientId(kept.clientId()).redirectUri(kept.redirectUri()).scopes(kept.scopes())
                        .state(kept.state()).additionalParameters(new HashMap<>(kept.parameters()))
                        .attributes(attributes -> attributes.putAll(kept.attributes())).build();
            } catch (JacksonException | IllegalArgumentException damaged) {
                return null;
            }
        }).orElse(null);
    }

    @Override
    public @Nullable OAuth2AuthorizationRequest removeAuthorizationRequest(HttpServletRequest request,
            HttpServletResponse response) {
        OAuth2AuthorizationRequest kept = loadAuthorizationRequest(request);
        saveAuthorizationRequest(null, request, response);
        return kept;
    }
}
