package dev.paseo.service.secret;

import dev.paseo.service.problem.Refusal;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** The secret with which a component's push hooks are signed; kept as a secret under a reserved name. */
@Component
public class HookSecrets {

    private static final String NAME = "PASEO_HOOK";
    private static final String MAPPED = "PASEO_HOOK_MAPPED";

    private final Secrets secrets;

    HookSecrets(Secrets secrets) {
        this.secrets = secrets;
    }

    public void make(long component) {
        byte[] key = new byte[24];
        new SecureRandom().nextBytes(key);
        secrets.set(NAME, "whsec_" + Base64.getEncoder().encodeToString(key), Secrets.Scope.of(component, 0),
                OptionalLong.empty());
    }

    /** As Standard Webhooks write it: {@code whsec_} and base64. */
    public String of(long component, String name) {
        return secrets.value(NAME, component)
                .orElseThrow(() -> Refusal.notFound(name + " has no hook"));
    }

    /** The secret that a source was given that cannot sign our way. */
    public String mapped(long component, String name) {
        return secrets.value(MAPPED, component)
                .orElseThrow(() -> Refusal.notFound(name + " has no mapping for hooks"));
    }

    public void keepMapped(long component, String secret) {
        secrets.set(MAPPED, secret, Secrets.Scope.of(component, 0), OptionalLong.empty());
    }
}
