package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.restraint.Holds;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Holds of a place. */
@RestController
@RequestMapping("/api/v1/places/{component}/{environment}/hold")
class HoldController {

    record ReasonRequest(String reason) {}

    private final NamedPlaces places;
    private final Holds holds;

    HoldController(NamedPlaces places, Holds holds) {
        this.places = places;
        this.holds = holds;
    }

    /** Holds a place: nothing is deployed there by itself until the hold is lifted. */
    @PutMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void set(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String environment,
            @RequestBody ReasonRequest request) {
        holds.hold(
                places.place(person, Action.PROMOTE, "hold " + NamedPlaces.here(component, environment), component,
                        environment),
                person, request.reason());
    }

    /** Lifts the hold of a place. */
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void lift(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestParam(defaultValue = "") String reason) {
        holds.liftHold(places.place(person, Action.PROMOTE,
                "lift the hold of " + NamedPlaces.here(component, environment), component,
                environment), person, reason);
    }
}
