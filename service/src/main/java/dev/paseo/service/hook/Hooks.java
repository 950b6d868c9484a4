package dev.paseo.service.hook;

import dev.paseo.service.trigger.Pusher;
import dev.paseo.service.trigger.Polls;
import dev.paseo.service.trigger.Pushes;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.secret.HookSecrets;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.signature.StandardWebhooks;
import dev.paseo.service.store.Stores;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Believes hooks or not, and follows them once. */
@Component
class Hooks {

    /** How many lines a push is answered with. */
    private static final int MOST_LINES = 40;

    private static final String NOBODYS_SECRET = Base64.getEncoder()
            .encodeToString(Tokens.fresh("nobody").getBytes(StandardCharsets.US_ASCII));
    private static final Logger LOG = LoggerFactory.getLogger(Hooks.class);

    private final HookMapper mapper;
    private final HookSecrets secrets;
    private final Pushes pushes;
    private final Polls polls;
    private final Reading reading;

    /** What a hook is read with, and what its setting leaves. */
    @Component
    record Reading(ServiceClock clock, JsonMapper tree, Json json, AuditTrail audit, Transactions transactions,
            Stores stores, Accounts accounts) {}

    Hooks(HookMapper mapper, HookSecrets secrets, Pushes pushes, Polls polls, Reading reading) {
        this.mapper = mapper;
        this.secrets = secrets;
        this.pushes = pushes;
        this.polls = polls;
        this.reading = reading;
    }

    /**
     * A message signed per Standard Webhooks; false where it was here before. Who cannot sign it is not told whether
     * there is such a component.
     */
    boolean believe(Optional<RegisteredComponent> known, String id, String timestamp, String signature, byte[] body) {
        String secret = known.map(of -> secrets.of(of.id(), of.name())).orElse(NOBODYS_SECRET);
        StandardWebhooks.reasonAgainst(secret, id, timestamp, signature, body, reading.clock().outside())
                .ifPresent(why -> {
                    LOG.warn("a hook for {} is refused: {}",
                            known.map(RegisteredComponent::name).orElse("no component of ours"), why);
                    throw Refusal.signedOut("The hook is refused: " + why + ".");
                });
        RegisteredComponent component = known.orElseThrow();
        if (id.isEmpty() || id.length() > 120) {
            throw Refusal.invalid("/webhook-id", "A message's id has 1 to 120 characters");
        }
        return mapper.deliver(component.id(), id, reading.clock().now()) == 1;
    }

    /** Said alike where there is no such component, no mapping, and another proof. */
    static Refusal unproven() {
        return Refusal.signedOut(
                "The hook is refused: it lacks the proof that its address requires. The service's log says "
                        + "more.");
    }

    HookMapping mapping(RegisteredComponent component) {
        return mapper.mapping(component.id()).map(text -> reading.json().read(text, HookMapping.class))
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
        reading.transactions().run(() -> {
            mapper.keepMapping(component.id(), reading.json().write(mapping));
            secrets.keepMapped(component.id(), secret);
            reading.audit().record(
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
                .orElseGet(() -> Tokens.hash(new String(body, StandardCharsets.ISO_8859_1)));
        return mapper.deliver(component.id(), "mapped " + id, reading.clock().now()) == 1;
    }

    /** A body as JSON. */
    JsonNode json(byte[] body) {
        try {
            return reading.tree().readTree(new String(body, StandardCharsets.UTF_8));
        } catch (JacksonException notJson) {
            throw Refusal.invalid("", "The hook's body is not JSON, or not all of it arrived");
        }
    }

    /** Looks at the component's repository, and says in words, for whoever pushed, what that led to. */
    String follow(RegisteredComponent component, Pusher pusher) {
        String repository = component.repository()
                .orElseThrow(() -> Refusal.conflict(component.name() + " has no repository to look at"));
        try {
            return words(component, pushes.look(repository, pusher));
        } catch (Refusal away) {
            if (away.kind() != Refusal.Kind.UNAVAILABLE) {
                throw away;
            }
            polls.soon(repository, String.valueOf(away.getMessage()));
            throw Refusal.unavailable(away.getMessage() + ". It is tried again soon; no push is lost.");
        }
    }

    /** Somebody who may say whose address is whose says who pushed a commit. */
    void pushed(RegisteredComponent component, String commit, String account, String by) {
        String pushed = reading.accounts().named(account).name();
        reading.transactions().run(() -> {
            List<String> branches = pushes.tell(component, commit, pushed);
            if (branches.isEmpty()) {
                throw Refusal.notFound(component.name() + " has no push with the commit " + commit
                        + " whose pusher is unknown");
            }
            reading.accounts().judgeAgain(reading.clock().now());
            reading.audit().record(AuditTrail.Entry.of(by, "pusher told", component.name()).with("commit", commit)
                    .with("branches", String.join(", ", branches)).with("pushed by", pushed));
        });
    }

    /** A person asks for a look at all that a component comes from. */
    String lookNow(RegisteredComponent component) {
        if (component.retired().isPresent()) {
            throw Refusal.conflict(component.name() + " is retired: none of its runs can be started");
        }
        reading.stores().soon(component.id());
        return component.repository().isPresent() ? follow(component, Pusher.UNTOLD)
                : "Paseo looks at the stores of " + component.name() + ".\n";
    }

    /** Follows an event of the CDEvents vocabulary, as far as it says that something here is worth looking at. */
    String happened(RegisteredComponent component, String type, String source) {
        if (type.matches("dev\\.cdevents\\.(change\\.merged|repository\\.modified|branch\\.(created|deleted))\\..*")) {
            return follow(component, Pusher.UNTOLD);
        }
        if (type.matches("dev\\.cdevents\\.artifact\\.(packaged|published)\\..*")) {
            reading.stores().soon(component.id());
            return "Paseo looks at the stores of " + component.name() + ".\n";
        }
        return "Paseo took note of " + type + ": it starts nothing here.\n";
    }

    /** What came of it, for whoever pushed: what has started first, and not more lines than somebody reads. */
    private static String words(RegisteredComponent component, Pushes.Seen seen) {
        List<String> lines = new ArrayList<>();
        for (Pushes.Moved each : seen.moved()) {
            each.led().run().ifPresent(run -> lines.add("Paseo started " + each.component() + "#" + run.number()
                    + " for " + each.name() + ": it will be " + run.version() + "."));
        }
        for (Pushes.Moved each : seen.moved()) {
            each.led().why().ifPresent(why -> lines
                    .add("Paseo started nothing of " + each.component() + " for " + each.name() + ": " + why + "."));
            each.warnings().forEach(warning -> lines.add("Please change " + warning + "."));
        }
        seen.gone().forEach(
                each -> lines.add("Paseo noticed that " + each.branch() + " of " + each.component() + " was deleted"
                        + (each.preview() ? ": its preview is taken away." : ": it starts nothing any more.")));
        seen.unread().forEach(each -> lines.add("Paseo looks again soon: " + each.sentence() + "."));
        seen.many().forEach(each -> lines.add(each + "."));
        if (lines.isEmpty()) {
            return "Nothing has moved since Paseo looked last: what was pushed was noticed already. What came of "
                    + "it: paseo why "
                    + component.name() + "\n";
        }
        String shown = String.join("\n", lines.stream().distinct().limit(MOST_LINES).toList()) + "\n";
        return lines.size() > MOST_LINES
                ? shown + "And " + (lines.size() - MOST_LINES) + " more: paseo why " + component.name() + "\n" : shown;
    }
}
