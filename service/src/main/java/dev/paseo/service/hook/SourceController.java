package dev.paseo.service.hook;

import dev.paseo.service.trigger.Polls;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How a component's repository is looked at, and how its hooks are read. */
@RestController
@RequestMapping("/api/v1/components/{name}")
class SourceController {

    /**
     * How the repository was last found.
     *
     * @param failures how many times in a row it did not answer
     * @param error    what it said the last time, where it did not answer
     */
    record SourceState(Optional<String> repository, Optional<Instant> lookedAt, int failures, Optional<String> error,
            Optional<Instant> nextAt) {}

    /** @param secret that the source signs with, or the shared word; at least 16 characters */
    record MappingRequest(String header, HookMapping.Scheme scheme, Optional<String> prefix, Optional<String> delivery,
            Optional<String> pusher, String secret) {}

    private final Components components;
    private final Polls polls;
    private final Hooks hooks;
    private final BelievedHooks believed;
    private final ToldPushers pushers;

    SourceController(Components components, Polls polls, Hooks hooks, BelievedHooks believed, ToldPushers pushers) {
        this.components = components;
        this.polls = polls;
        this.hooks = hooks;
        this.believed = believed;
        this.pushers = pushers;
    }

    /** When a component's repository was looked at last, and how that went. */
    @GetMapping("/source")
    SourceState source(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        Optional<Polls.Found> found = component.repository().flatMap(polls::of);
        return new SourceState(component.repository(), found.flatMap(Polls.Found::lookedAt),
                found.map(Polls.Found::failures).orElse(0), found.flatMap(Polls.Found::error),
                found.map(Polls.Found::nextAt));
    }

    /** What a look led to, in words. */
    record LookedView(String said) {}

    /** Looks at the repository and at the observed stores now, as after a hook. */
    @PostMapping("/look")
    LookedView look(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.START_RUN, "have the source of " + name + " looked at", Optional.of(name),
                Optional.empty());
        return new LookedView(hooks.lookNow(components.named(name)));
    }

    /** @param by the account that pushed it */
    record PushedRequest(String by) {}

    /**
     * Says who pushed a commit, where nobody told when it was noticed: gates that ask who its authors are then know.
     */
    @PutMapping("/pushes/{commit}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void pushed(@AuthenticationPrincipal Person person, @PathVariable String name, @PathVariable String commit,
            @RequestBody PushedRequest request) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "say who pushed " + name, Optional.of(name),
                Optional.empty());
        pushers.told(components.named(name), commit, request.by(), person.name());
    }

    /** Sets how hooks at {@code /hooks/v1/mapped/NAME} are read. */
    @PutMapping("/hook-mapping")
    HookMapping map(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody MappingRequest request) {
        Permission.require(person, Action.REGISTER_COMPONENT, "say how pushes of " + name + " are read",
                Optional.of(name), Optional.empty());
        HookMapping mapping = new HookMapping(request.header(), request.scheme(), request.prefix(), request.delivery(),
                request.pusher());
        believed.map(components.named(name), mapping, request.secret(), person.name());
        return mapping;
    }
}
