package dev.paseo.service.signin;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.ProblemAnswer;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.PersonalTokens;
import dev.paseo.service.access.SigningIn;
import dev.paseo.service.settings.Settings;
import jakarta.servlet.DispatcherType;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AuthorizeHttpRequestsConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.config.observation.SecurityObservationSettings;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.authentication.session.NullAuthenticatedSessionStrategy;

/** Everything under /api needs somebody who is signed in; agents and hooks carry proofs of their own. */
@Configuration
class SecurityConfiguration {

    private static final String POLICY = "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
            + "img-src 'self' data:; font-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; "
            + "form-action 'self'";

    /** Each filter of each request would be wrapped to be measured by itself. */
    @Bean
    SecurityObservationSettings unobserved() {
        return SecurityObservationSettings.noObservations();
    }

    @Bean
    SecurityFilterChain chain(HttpSecurity http, PersonalTokens tokens, SigningIn signingIn, SessionCookie cookie,
            Settings settings, ProviderSignIn provider) throws Exception {
        return provider.into(http)
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                // A new proof with every request would take away the one that another request of the same page is about
                // to show.
                .csrf(csrf -> csrf.spa().sessionAuthenticationStrategy(new NullAuthenticatedSessionStrategy())
                        .ignoringRequestMatchers(
                                // Requests that no browser sends by itself: they carry no cookie that would sign them
                                // in.
                                request -> SignInFilter.bearer(request).isPresent(),
                                request -> request.getRequestURI().startsWith("/hooks/")
                                        || request.getRequestURI().startsWith("/agent/"),
                                request -> request.getRequestURI().equals("/api/v1/tokens")
                                        || request.getRequestURI().equals("/api/v1/password-by-code")))
                .addFilterBefore(new SignInFilter(tokens, signingIn, cookie),
                        UsernamePasswordAuthenticationFilter.class)
                .addFilterBefore(new RequestLimits(settings, cookie), SignInFilter.class)
                .authorizeHttpRequests(SecurityConfiguration::whoMay)
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY))
                        .referrerPolicy(referrer -> {}))
                .exceptionHandling(handling -> handling
                        .authenticationEntryPoint((request, response, failure) -> ProblemAnswer.write(response,
                                Refusal.signedOut(SignInFilter.bearer(request).map(tokens::whyNot)
                                        .orElse(cookie.of(request).isPresent()
                                                ? "Your session has ended; sign in again"
                                                : "Sign in first: this needs an account"))))
                        .accessDeniedHandler((request, response, failure) -> ProblemAnswer.write(response,
                                request.getRequestURI().startsWith("/actuator/")
                                        ? Refusal.notAllowed("This is for whoever may " + Action.READ_METRICS.words())
                                        : Refusal.forged("The request lacks the proof that it came from the console; "
                                                + "load the page again"))))
                .formLogin(form -> form.disable()).httpBasic(basic -> basic.disable())
                .logout(logout -> logout.disable())
                .build();
    }

    private static void whoMay(
            AuthorizeHttpRequestsConfigurer<HttpSecurity>.AuthorizationManagerRequestMatcherRegistry requests) {
        // What was allowed when it was asked for ends in peace, even where its account was disabled since.
        requests.dispatcherTypeMatchers(DispatcherType.ASYNC).permitAll()
                .requestMatchers("/api/v1/session", "/api/v1/tokens", "/api/v1/password-by-code",
                        "/api/v1/sign-in-ways", "/api/v1/problems")
                .permitAll()
                .requestMatchers("/actuator/health/**").permitAll()
                .requestMatchers("/actuator/**").access((authentication, request) -> new AuthorizationDecision(
                        authentication.get().getPrincipal() instanceof Person person
                                && person.may(Action.READ_METRICS, Optional.empty(), Optional.empty())))
                .requestMatchers("/api").permitAll()
                .requestMatchers("/api/**").authenticated()
                .anyRequest().permitAll();
    }
}
