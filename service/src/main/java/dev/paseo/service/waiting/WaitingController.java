package dev.paseo.service.waiting;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.asking.Asks;
import dev.paseo.service.permission.Permission;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What needs the reader. */
@RestController
@RequestMapping("/api/v1/waiting")
class WaitingController {

    private final WaitingViews views;
    private final Asks asks;

    WaitingController(WaitingViews views, Asks asks) {
        this.views = views;
        this.asks = asks;
    }

    /** What waits for you, the most urgent first. */
    @GetMapping
    WaitingViews.WaitingView waiting(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return views.waiting(person, asks.waitingFor(person));
    }

    /** How much needs the reader, without what it is: the same count. */
    @GetMapping("/count")
    WaitingViews.CountView count(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return views.count(person, asks.countFor(person));
    }
}
