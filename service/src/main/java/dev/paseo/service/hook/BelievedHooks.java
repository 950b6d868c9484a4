package dev.paseo.service.hook;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.HookSecrets;
import dev.paseo.service.signature.StandardWebhooks;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Believes hooks or not, each once. */
@Component
class BelievedHooks {

    private static final String NOBODYS_SECRET = Base64.getEncoder()
            .encodeToString(Tokens.fresh("nobody").getBytes(StandardCharsets.US_ASCII));
    private static final Logger LOG = LoggerFactory.getLogger(BelievedHooks.class);

    private final HookMapper mapper;
    private final HookSecrets secrets;
    private final Changes changes;
    private final Json json;

    BelievedHooks(HookMapper mapper, HookSecrets secrets, Changes changes, Json json) {
        this.mapper = mapper;
        this.secrets = secrets;
        this.changes = changes;
        this.json = json;
    }

    /**
     * A message signed per Standard Webhooks; false where it was here before. Who cannot sign it is not told whether
     * there is such a component.
     */
    boolean believe(Optional<RegisteredComponent> known, String id, String timestamp, String signature, byte[] body) {
        String secret = known.map(of -> secrets.of(of.id(), of.name())).orElse(NOBODYS_SECRET);
        StandardWebhooks.reasonAgainst(secret, id, timestamp, signature, body, changes.outside())
                .ifPresent(why -> {
                    LOG.warn("a hook for {} is refused: {}",
                            known.map(RegisteredComponent::name).orElse("no component of ours"), why);
                    throw Refusal.signedOut("The hook is refused: " + why + ".");
                });
        RegisteredComponent component = known.orElseThrow();
        if (id.isEmpty() || id.length() > 120) {
            throw Refusal.invalid("/webhook-id", "A message's id has 1 to 120 characters");
        }
        return mapper.deliver(component.id(), id, changes.now()) == 1;
    }

    /** Said alike where there is no such component, no mapping, and another proof. */
    static Refusal unproven() {
        return Refusal.signedOut(
                "The hook is refused: it lacks the proof that its address requires. The service's log says "
                        + "more.");
    }

    HookMapping mapping(RegisteredComponent component) {
        return mapper.mapping(component.id()).map(text -> json.read(text, HookMapping.class))
                .orElseThrow(() -> {
                    LOG.warn(
                            "a hook for {} is refused: it has no mapping for hooks of its source; sign them as "
                                    + "Standard Webhooks, or set one",
                            component.name());
                    return unproven();
                });
    }

    void map(RegisteredComponent component, HookMapping mapping, String secret, String by) {
        mapping.check();
        if (secret.length() < 16) {
            throw Refusal.invalid("/secret", "A hook's secret has at least 16 characters");
        }
        changes.run(() -> {
            mapper.keepMapping(component.id(), json.write(mapping));
            secrets.keepMapped(component.id(), secret);
            changes.record(
                    AuditTrail.Entry.of(by, "hook mapping set", component.name()).with("header", mapping.header()));
        });
    }

    /** The same for a message that is signed as the component's mapping says. */
    boolean believeMapped(RegisteredComponent component, HookMapping mapping, Optional<String> header,
            Optional<String> delivery,
            byte[] body) {
        mapping.reasonAgainst(secrets.mapped(component.id(), component.name()), header.orElse(null), body)
                .ifPresent(why -> {
                    LOG.warn("a hook for {} is refused: {}", component.name(), why);
                    throw unproven();
                });
        String id = delivery.filter(text -> !text.isBlank() && text.length() <= 100)
                .orElseGet(() -> Sha256.hex(new String(body, StandardCharsets.ISO_8859_1)));
        return mapper.deliver(component.id(), "mapped " + id, changes.now()) == 1;
    }
}
