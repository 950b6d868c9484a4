package dev.paseo.service.serving;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class ServingController {

    private final Serving serving;

    ServingController(Serving serving) {
        this.serving = serving;
    }

    /** The service as a whole: its version, its database, what is free, and whether mails wait. */
    @GetMapping("/service")
    Serving.ServingView now(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.READ_METRICS);
        return serving.now();
    }

    /** Sends a mail to your own address at once, or says why it does not go out. */
    @PostMapping("/mail-test")
    Serving.MailTestView mail(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "send a mail to see whether it arrives");
        Permission.unlimited(person, "send a mail to see whether it arrives");
        return serving.mail(person);
    }
}
