package dev.paseo.service.trigger;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.component.HookSecrets;
import dev.paseo.service.problem.Refusal;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Push hooks, signed per Standard Webhooks. */
@Hidden
@RestController
@RequestMapping("/hooks/v1")
class HookController {

    private static final Logger LOG = LoggerFactory.getLogger(HookController.class);
    private static final int LARGEST = 1 << 20;

    private final Components components;
    private final HookSecrets secrets;
    private final Pushes pushes;
    private final PushMapper mapper;
    private final Reading reading;

    /** What a hook is read with. */
    @org.springframework.stereotype.Component
    record Reading(ServiceClock clock, JsonMapper json) {}

    HookController(Components components, HookSecrets secrets, Pushes pushes, PushMapper mapper, Reading reading) {
        this.components = components;
        this.secrets = secrets;
        this.pushes = pushes;
        this.mapper = mapper;
        this.reading = reading;
    }

    /** Looks at the heads, and says in words, for whoever pushed, what that led to. */
    @PostMapping(value = "/push/{name}", produces = "text/plain;charset=utf-8")
    String push(@PathVariable String name, @RequestHeader("webhook-id") String id, @RequestHeader("webhook-timestamp") String timestamp,
            @RequestHeader("webhook-signature") String signature, HttpServletRequest request) throws IOException {
        byte[] body = request.getInputStream().readNBytes(LARGEST + 1);
        if (body.length > LARGEST) {
            throw Refusal.tooLarge("a hook has at most " + LARGEST + " bytes");
        }
        Registered component = components.named(name);
        Optional<String> doubt = HookSignature.doubt(secrets.of(component), id, timestamp, signature, body, reading.clock().now());
        if (doubt.isPresent()) {
            LOG.warn("a push hook for {} is refused: {}", name, doubt.get());
            throw Refusal.signedOut("The hook is refused: " + doubt.get() + ".");
        }
        if (id.length() > 120 || mapper.deliver(component.id(), id, reading.clock().now()) == 0) {
            return "Paseo had this message before: nothing more follows from it.\n";
        }
        return words(component, pushes.look(component, pusher(body)));
    }

    private Optional<String> pusher(byte[] body) {
        try {
            return Optional.ofNullable(reading.json().readTree(new String(body, StandardCharsets.UTF_8)).path("pusher").asString(null));
        } catch (JacksonException notJson) {
            throw Refusal.invalid("", "the hook's body is not JSON");
        }
    }

    private static String words(Registered component, List<Pushes.Led> led) {
        StringBuilder words = new StringBuilder();
        for (Pushes.Led each : led) {
            each.run().ifPresent(run -> words.append("Paseo started ").append(component.name()).append('#').append(run.number())
                    .append(" for ").append(each.branch()).append(": it will be ").append(run.version()).append(".\n"));
            each.reason().ifPresent(reason -> words.append("Paseo started nothing for ").append(each.branch()).append(": ").append(reason).append(".\n"));
        }
        return words.isEmpty() ? "Paseo saw no branch that moved.\n" : words.toString();
    }
}
