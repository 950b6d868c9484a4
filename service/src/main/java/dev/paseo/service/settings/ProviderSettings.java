package dev.paseo.service.settings;

import java.util.Optional;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * The provider with which people may sign in beside their passwords, by OpenID Connect, under {@code paseo.provider.}.
 *
 * @param issuer       its address, as it stands in its tokens; none: there is no such provider
 * @param clientId     as which the provider knows this service
 * @param clientSecret what the two share
 * @param label        what the button says
 * @param nameClaim    the claim that has the name of a new account
 * @param groupsClaim  the claim that has the groups somebody is in
 * @param newAccounts  whether whoever signs in for the first time gets an account, with the roles of its groups alone
 */
@ConfigurationProperties("paseo.provider")
public record ProviderSettings(Optional<String> issuer, @DefaultValue("paseo") String clientId,
        @DefaultValue("") String clientSecret, @DefaultValue("Sign in with your work account") String label,
        @DefaultValue("preferred_username") String nameClaim, @DefaultValue("groups") String groupsClaim,
        @DefaultValue("false") boolean newAccounts) {}
