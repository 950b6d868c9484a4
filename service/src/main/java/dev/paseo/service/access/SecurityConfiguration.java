package dev.paseo.service.access;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.authentication.session.NullAuthenticatedSessionStrategy;

/** Everything under /api needs somebody who is signed in; agents and hooks carry proofs of their own. */
@Configuration
class SecurityConfiguration {

    private static final String POLICY = "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
            + "img-src 'self' data:; font-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'";

    @Bean
    SecurityFilterChain chain(HttpSecurity http, Accounts accounts) throws Exception {
        return http
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                // A new proof with every request would take away the one that another request of the same page is about to show.
                .csrf(csrf -> csrf.spa().sessionAuthenticationStrategy(new NullAuthenticatedSessionStrategy()).ignoringRequestMatchers(
                        // Requests that no browser sends by itself: they carry no cookie that would sign them in.
                        request -> SignInFilter.bearer(request).isPresent(),
                        request -> request.getRequestURI().startsWith("/hooks/") || request.getRequestURI().startsWith("/agent/"),
                        request -> request.getRequestURI().equals("/api/v1/tokens")))
                .addFilterBefore(new SignInFilter(accounts), UsernamePasswordAuthenticationFilter.class)
                .authorizeHttpRequests(requests -> requests
                        .requestMatchers("/api/v1/session", "/api/v1/tokens").permitAll()
                        .requestMatchers("/actuator/health/**").permitAll()
                        .requestMatchers("/api/**", "/actuator/**").authenticated()
                        .anyRequest().permitAll())
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY))
                        .referrerPolicy(referrer -> {}))
                .exceptionHandling(handling -> handling
                        .authenticationEntryPoint((request, response, failure) -> {
                            response.setStatus(HttpStatus.UNAUTHORIZED.value());
                            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
                            response.getWriter().write("{\"type\":\"urn:paseo:problem:signed-out\",\"title\":\"Sign in first\","
                                    + "\"status\":401,\"detail\":\"This needs somebody who is signed in.\"}");
                        })
                        .accessDeniedHandler((request, response, failure) -> {
                            response.setStatus(HttpStatus.FORBIDDEN.value());
                            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
                            response.getWriter().write("{\"type\":\"urn:paseo:problem:forged\",\"title\":\"Not allowed\","
                                    + "\"status\":403,\"detail\":\"The request lacks the proof that it came from the console; load the page again.\"}");
                        }))
                .formLogin(form -> form.disable()).httpBasic(basic -> basic.disable()).logout(logout -> logout.disable())
                .build();
    }
}
