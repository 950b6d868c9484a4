package dev.paseo.service.signin;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletResponse;
import dev.paseo.core.access.Person;
import java.io.IOException;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The ways to sign in. */
@RestController
class ProviderController {

    private static final Logger LOG = LoggerFactory.getLogger(ProviderController.class);

    private final Provider provider;

    ProviderController(Provider provider) {
        this.provider = provider;
    }

    /**
     * @param signedIn whether whoever asks is signed in already
     * @param provider what the button says with which one signs in elsewhere; absent where there is only the password
     */
    record WaysView(boolean signedIn, Optional<String> provider) {}

    /** Which ways there are to sign in, and whether one is. */
    @GetMapping("/api/v1/sign-in-ways")
    WaysView ways(@AuthenticationPrincipal Person person) {
        return new WaysView(person != null, provider.label());
    }

    /** Sends the browser to the provider; back to the page with a reason where that does not answer. */
    @Hidden
    @GetMapping("/sign-in/with-provider")
    void go(HttpServletResponse response) throws IOException {
        try {
            provider.registration();
            response.sendRedirect(Provider.TO + "/" + Provider.ID);
        } catch (RuntimeException away) {
            LOG.warn("the provider of sign-ins does not answer as it should: {}", away.getMessage());
            response.sendRedirect("/sign-in?because=provider-away");
        }
    }
}
