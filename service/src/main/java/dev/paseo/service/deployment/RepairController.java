package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Hosts that are not as they were deployed to. */
@RestController
@RequestMapping("/api/v1/places/{component}/{environment}/repair")
class RepairController {

    /** @param hosts those to be brought to what is live; those that differ where absent */
    record RepairRequest(Optional<List<String>> hosts) {}

    record RepairView(List<String> hosts) {}

    private final Repairs repairs;
    private final NamedPlaces places;

    RepairController(Repairs repairs, NamedPlaces places) {
        this.repairs = repairs;
        this.places = places;
    }

    /** Brings hosts that differ or are unhealthy to what is live, exactly as it was deployed. */
    @PostMapping
    RepairView begin(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment, @RequestBody RepairRequest request) {
        return new RepairView(
                repairs.repair(places.place(person, Action.PROMOTE,
                        "repair hosts of " + NamedPlaces.here(component, environment), component,
                        environment), person.name(), request.hosts().orElse(List.of())));
    }
}
