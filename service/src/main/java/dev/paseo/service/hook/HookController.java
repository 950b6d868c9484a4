package dev.paseo.service.hook;

import dev.paseo.core.text.Size;
import dev.paseo.service.trigger.Pusher;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.problem.Refusal;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Push hooks: signed per Standard Webhooks, or read as a mapping says. They only say that it is worth looking. */
@Hidden
@RestController
@RequestMapping(value = "/hooks/v1", produces = "text/plain;charset=utf-8")
class HookController {

    private static final int LARGEST = 1_000_000;
    private static final String HERE_BEFORE = "Paseo had this message before: nothing more follows from it.\n";

    private static final String BRANCHES = "refs/heads/";

    private final Components components;
    private final BelievedHooks believed;
    private final Hooks hooks;

    HookController(Components components, BelievedHooks believed, Hooks hooks) {
        this.components = components;
        this.believed = believed;
        this.hooks = hooks;
    }

    /** A git server says that a repository was pushed to (Standard Webhooks). */
    @PostMapping("/push/{name}")
    String push(@PathVariable String name, @RequestHeader("webhook-id") String id,
            @RequestHeader("webhook-timestamp") String timestamp,
            @RequestHeader("webhook-signature") String signature, HttpServletRequest request) throws IOException {
        Optional<RegisteredComponent> known = components.found(name);
        byte[] body = body(request);
        if (!believed.believe(known, id, timestamp, signature, body)) {
            return HERE_BEFORE;
        }
        RegisteredComponent component = inUse(known.orElseThrow());
        JsonNode said = hooks.json(body);
        Set<String> branches = said.path("refs").valueStream().map(ref -> ref.asString(""))
                .filter(ref -> ref.startsWith(BRANCHES)).map(ref -> ref.substring(BRANCHES.length()))
                .collect(Collectors.toSet());
        return hooks.follow(component, new Pusher(Optional.ofNullable(said.path("pusher").asString(null)),
                said.has("refs") ? Optional.of(branches) : Optional.empty()));
    }

    /** A git server says that a repository was pushed to, in its own form, as the mapping says. */
    @PostMapping("/mapped/{name}")
    String mapped(@PathVariable String name, HttpServletRequest request) throws IOException {
        RegisteredComponent known = components.found(name).orElseThrow(BelievedHooks::unproven);
        HookMapping mapping = believed.mapping(known);
        byte[] body = body(request);
        if (!believed.believeMapped(known, mapping, Optional.ofNullable(request.getHeader(mapping.header())),
                mapping.delivery().map(request::getHeader), body)) {
            return HERE_BEFORE;
        }
        RegisteredComponent component = inUse(known);
        JsonNode json = hooks.json(body);
        return hooks.follow(component,
                new Pusher(mapping.pusher().map(pointer -> json.at(pointer).asString(null)), Optional.empty()));
    }

    /** What happened elsewhere, as a CloudEvent with a type of the CDEvents vocabulary, structured. */
    @PostMapping("/events/{name}")
    String event(@PathVariable String name, @RequestHeader("webhook-id") String id,
            @RequestHeader("webhook-timestamp") String timestamp,
            @RequestHeader("webhook-signature") String signature, HttpServletRequest request) throws IOException {
        Optional<RegisteredComponent> known = components.found(name);
        byte[] body = body(request);
        if (!believed.believe(known, id, timestamp, signature, body)) {
            return HERE_BEFORE;
        }
        RegisteredComponent component = inUse(known.orElseThrow());
        JsonNode json = hooks.json(body);
        String type = json.path("type").asString("");
        if (!json.path("specversion").asString("").equals("1.0") || type.isEmpty()) {
            throw Refusal.invalid("/specversion", "should be a structured CloudEvent of version 1.0");
        }
        return hooks.happened(component, type, json.path("source").asString("elsewhere"));
    }

    private static RegisteredComponent inUse(RegisteredComponent component) {
        if (component.retired().isPresent()) {
            throw Refusal.conflict(component.name()
                    + " is retired: its hook starts nothing. Remove the hook from the repository");
        }
        return component;
    }

    private static byte[] body(HttpServletRequest request) throws IOException {
        if (request.getContentLengthLong() > LARGEST) {
            throw Refusal.tooLarge("A hook has at most " + Size.words(LARGEST));
        }
        byte[] body = request.getInputStream().readNBytes(LARGEST + 1);
        if (body.length > LARGEST) {
            throw Refusal.tooLarge("A hook has at most " + Size.words(LARGEST));
        }
        return body;
    }
}
