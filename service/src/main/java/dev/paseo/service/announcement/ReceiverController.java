package dev.paseo.service.announcement;

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
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Who is told what happens, and what became of each message. */
@RestController
@RequestMapping("/api/v1/receivers")
class ReceiverController {

    private final Receivers receivers;

    ReceiverController(Receivers receivers) {
        this.receivers = receivers;
    }

    /** Lists the receivers of events. */
    @GetMapping
    List<Receivers.ReceiverView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.TELL_OTHERS);
        return receivers.all();
    }

    /** Adds a receiver of events; its secret is in this answer alone. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Receivers.AddedReceiverView add(@AuthenticationPrincipal Person person,
            @RequestBody Receivers.ReceiverRequest request) {
        Permission.require(person, Action.TELL_OTHERS);
        return receivers.add(person, request);
    }

    /** The newest messages, at most 50, with every attempt; {@code before}: the cursor of the next page. */
    @GetMapping("/{name}/messages")
    List<Receivers.MessageView> messages(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<Long> before) {
        Permission.require(person, Action.TELL_OTHERS);
        return receivers.messages(name, before);
    }

    /** Sends a message again, whatever became of it; it is tried for another day. */
    @PostMapping("/{name}/messages/{id}/resend")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void resend(@AuthenticationPrincipal Person person, @PathVariable String name, @PathVariable long id) {
        Permission.require(person, Action.TELL_OTHERS);
        receivers.resend(person, name, id);
    }

    /** Stops sending events to a receiver; what was sent stays to be looked at. */
    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.TELL_OTHERS);
        receivers.stop(person, name);
    }
}
