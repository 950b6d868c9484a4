package dev.paseo.service.signin;

import dev.paseo.service.settings.Settings;
import dev.paseo.service.settings.ProviderSettings;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.registration.ClientRegistrationRepository;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.stereotype.Component;

/**
 * The provider of sign-ins, as it describes itself (OpenID Connect Discovery 1.0). It is asked when somebody signs in
 * first: one that is away keeps nothing from starting.
 */
@Component
class Provider implements ClientRegistrationRepository {

    static final String ID = "provider";
    /** Where a browser is sent to the provider from, and where it comes back to. */
    static final String TO = "/sign-in/to";
    static final String BACK = "/sign-in/back/" + ID;

    private final ProviderSettings settings;
    private final String address;
    private volatile @Nullable ClientRegistration known;

    Provider(ProviderSettings settings, Settings service) {
        this.settings = settings;
        this.address = service.address();
    }

    boolean isSet() {
        return settings.issuer().filter(issuer -> !issuer.isBlank()).isPresent();
    }

    /** What the button says; empty where there is no provider. */
    Optional<String> label() {
        return isSet() ? Optional.of(settings.label()) : Optional.empty();
    }

    @Override
    public @Nullable ClientRegistration findByRegistrationId(String id) {
        return isSet() && id.equals(ID) ? registration() : null;
    }

    /** @throws RuntimeException where the provider does not answer, or is another than it should be */
    synchronized ClientRegistration registration() {
        ClientRegistration found = known;
        if (found == null) {
            found = ClientRegistrations.fromIssuerLocation(settings.issuer().orElseThrow()).registrationId(ID)
                    .clientId(settings.clientId()).clientSecret(settings.clientSecret())
                    .scope("openid", "profile", "email").redirectUri(address + BACK).build();
            known = found;
        }
        return found;
    }
}
