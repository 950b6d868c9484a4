package dev.paseo.service.find;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.find.Sought;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/found")
class FindController {

    private final Finds finds;

    FindController(Finds finds) {
        this.finds = finds;
    }

    /**
     * Finds by how a thing is named: {@code daylight-api}, {@code daylight-api 1.4.7}, {@code daylight-api#41}, {@code
     * deployment 1042}, or the beginning of a commit or a SHA-256 (at least 4 characters); at most 20, the most likely
     * first.
     */
    @GetMapping
    List<Finds.NamedThing> find(@AuthenticationPrincipal Person person, @RequestParam String text) {
        Permission.require(person, Action.LOOK);
        if (text.length() > Sought.LONGEST) {
            throw Refusal.invalid("/text", "should have at most " + Sought.LONGEST + " characters");
        }
        return finds.find(text, component -> person.may(Action.LOOK, Optional.of(component), Optional.empty()),
                person.may(Action.MANAGE_ACCOUNTS, Optional.empty(), Optional.empty()));
    }
}
