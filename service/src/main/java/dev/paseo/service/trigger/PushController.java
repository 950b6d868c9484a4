package dev.paseo.service.trigger;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/components/{name}/pushes")
class PushController {

    /** A push: the run it started, or the reason why it started none. */
    record PushView(String branch, String commit, String pusher, Instant seenAt, Optional<Long> run, Optional<String> reason) {}

    private final Components components;
    private final PushMapper mapper;

    PushController(Components components, PushMapper mapper) {
        this.components = components;
        this.mapper = mapper;
    }

    @GetMapping
    List<PushView> newest(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return mapper.newest(components.named(name).id(), 50).stream().map(row -> new PushView(row.branch(), row.commitId(), row.pusher(),
                row.seenAt(), Optional.ofNullable(row.runNumber()), Optional.ofNullable(row.reason()))).toList();
    }
}
