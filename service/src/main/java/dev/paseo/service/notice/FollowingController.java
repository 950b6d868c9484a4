package dev.paseo.service.notice;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/following")
class FollowingController {

    private final OwnFollowing following;

    FollowingController(OwnFollowing following) {
        this.following = following;
    }

    /** What you follow. */
    @GetMapping
    List<OwnFollowing.FollowedView> all(@AuthenticationPrincipal Person person) {
        Permission.unlimited(person, "see or change what they are told");
        return following.of(person);
    }

    /**
     * Follows something: you are told how deployments of it or in it end, and of a component which runs fail and
     * which branch is mended.
     *
     * @param what component, environment or deployment
     * @param name a component's or an environment's name, or a deployment's number
     */
    @PutMapping("/{what}/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void follow(@AuthenticationPrincipal Person person, @PathVariable String what, @PathVariable String name) {
        Permission.unlimited(person, "see or change what they are told");
        Permission.require(person, Action.LOOK, what.equals("component") ? Optional.of(name) : Optional.empty(),
                what.equals("environment") ? Optional.of(name) : Optional.empty());
        following.follow(person, what, name);
    }

    /**
     * Follows something no more.
     *
     * @param what component, environment or deployment
     * @param name a component's or an environment's name, or a deployment's number
     */
    @DeleteMapping("/{what}/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void leave(@AuthenticationPrincipal Person person, @PathVariable String what, @PathVariable String name) {
        Permission.unlimited(person, "see or change what they are told");
        following.leave(person, what, name);
    }
}
