package dev.paseo.service.signin;

import dev.paseo.service.access.SigningIn;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.access.ProviderAccounts;
import dev.paseo.service.settings.ProviderSettings;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.oauth2.client.OAuth2AuthorizedClient;
import org.springframework.security.oauth2.client.web.DefaultOAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestCustomizers;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizedClientRepository;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Component;

/**
 * Signing in with the provider: by the authorization code flow of OpenID Connect Core 1.0, with PKCE (RFC 7636); what
 * follows is a session like any other.
 */
@Component
class ProviderSignIn {

    private static final Logger LOG = LoggerFactory.getLogger(ProviderSignIn.class);

    private final Provider provider;
    private final ProviderCookie requests;
    private final ProviderAccounts accounts;
    private final ProviderSettings settings;
    private final Session session;

    /** How a session begins. */
    @Component("providerSession")
    record Session(SigningIn signingIn, SessionCookie cookie) {}

    ProviderSignIn(Provider provider, ProviderCookie requests, ProviderAccounts accounts, ProviderSettings settings,
            Session session) {
        this.provider = provider;
        this.requests = requests;
        this.accounts = accounts;
        this.settings = settings;
        this.session = session;
    }

    /** Adds it to the chain where a provider is set. */
    HttpSecurity into(HttpSecurity http) throws Exception {
        if (!provider.isSet()) {
            return http;
        }
        DefaultOAuth2AuthorizationRequestResolver resolver = new DefaultOAuth2AuthorizationRequestResolver(provider,
                Provider.TO);
        resolver.setAuthorizationRequestCustomizer(OAuth2AuthorizationRequestCustomizers.withPkce());
        return http.oauth2Login(login -> login.clientRegistrationRepository(provider)
                .authorizedClientRepository(new Forgetful()).loginPage("/sign-in")
                .authorizationEndpoint(to -> to.baseUri(Provider.TO).authorizationRequestRepository(requests)
                        .authorizationRequestResolver(resolver))
                .redirectionEndpoint(back -> back.baseUri(Provider.BACK)).successHandler(this::welcome)
                .failureHandler(ProviderSignIn::failed));
    }

    private void welcome(HttpServletRequest request, HttpServletResponse response, Authentication authentication)
            throws IOException {
        OidcUser user = (OidcUser) authentication.getPrincipal();
        boolean verified = Boolean.TRUE.equals(user.getEmailVerified());
        List<String> groups = user.getClaims().get(settings.groupsClaim()) instanceof List<?> claimed
                ? claimed.stream().map(String::valueOf).toList() : List.of();
        ProviderAccounts.Vouched vouched = new ProviderAccounts.Vouched(user.getIssuer() + " " + user.getSubject(),
                Optional.ofNullable(user.getClaimAsString(settings.nameClaim())),
                Optional.ofNullable(user.getEmail()).filter(address -> verified), groups);
        try {
            String token = session.signingIn().session(accounts.of(vouched), "provider");
            response.addHeader(HttpHeaders.SET_COOKIE, session.cookie().header(token, SigningIn.SESSION, request));
            response.sendRedirect("/");
        } catch (Refusal refused) {
            LOG.warn("{} is not signed in: {}", vouched.subject(), refused.getMessage());
            response.sendRedirect(
                    "/sign-in?because=" + (refused.kind() == Refusal.Kind.NOT_FOUND ? "unknown" : "disabled"));
        }
    }

    private static void failed(HttpServletRequest request, HttpServletResponse response, AuthenticationException failed)
            throws IOException {
        LOG.warn("a sign-in with the provider failed: {}", failed.getMessage());
        response.sendRedirect("/sign-in?because=provider");
    }

    /** The provider's own tokens are for nothing here, and are not kept. */
    private static final class Forgetful implements OAuth2AuthorizedClientRepository {

        @Override
        public <T extends OAuth2AuthorizedClient> T loadAuthorizedClient(String registration, Authentication principal,
                HttpServletRequest request) {
            return null;
        }

        @Override
        public void saveAuthorizedClient(OAuth2AuthorizedClient client, Authentication principal,
                HttpServletRequest request, HttpServletResponse response) {}

        @Override
        public void removeAuthorizedClient(String registration, Authentication principal, HttpServletRequest request,
                HttpServletResponse response) {}
    }
}
