package dev.paseo.service.deployment;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.RollbackTarget;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.request.Requests;
import dev.paseo.service.request.Wanted;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What people do about what is live: go back from it, deploy it again. */
@Component
class WaysBack {

    private final Requests requests;
    private final Places places;
    private final Deployments deployments;
    private final Versions versions;

    WaysBack(Requests requests, Places places, Deployments deployments, Versions versions) {
        this.requests = requests;
        this.places = places;
        this.deployments = deployments;
        this.versions = versions;
    }

    /** Which version a rollback would go to now. */
    Optional<Versions.Version> target(Place place) {
        Optional<Versions.Version> live = places.live(place);
        if (live.isEmpty()) {
            return Optional.empty();
        }
        List<Deployments.Past> past = deployments.past(place.id());
        return RollbackTarget
                .choose(past.stream().map(Deployments.Past::deployment).toList(), live.get().number(),
                        versions.noWayBack(live.get()))
                .flatMap(chosen -> past.stream().filter(each -> each.deployment() == chosen).findFirst())
                .map(each -> versions.byId(each.version()));
    }

    /**
     * Back to the last good version, or to the one that is named; the place is held from now on.
     *
     * @throws Refusal a conflict where nothing is live, there is nothing to go back to, or that version is barred
     */
    long rollback(Place place, Person person, Optional<String> to, String reason, boolean emergency) {
        Versions.Version now = places.requireLive(place);
        Versions.Version target = to
                .map(number -> versions.numbered(place.componentId(), place.component(), number))
                .or(() -> target(place))
                .orElseThrow(() -> Refusal.conflict(
                        "There is no version to roll back to: no other version that is neither blocked, undone nor "
                                + "rolled back from"
                                + " was live in " + place.environment() + " before " + now.number()));
        boolean wasLive = deployments.past(place.id()).stream().anyMatch(each -> each.version() == target.id());
        Optional<String> barred = versions.noWayBack(now).filter(no -> no.bars(target.line(), target.order()))
                .map(no -> now.recipe().orElseThrow().noWayBackBefore().orElseThrow());
        RollbackTarget
                .refusal(new RollbackTarget.Wanted(now.number(), target.number(), place.environment(), wasLive, barred))
                .ifPresent(why -> {
                    throw Refusal.conflict(why);
                });
        return requests.request(new Wanted(place, target, Kind.ROLLBACK, Optional.of(person),
                new Cause.Asked(person.name(), Optional.of(reason)),
                emergency ? Optional.of(reason) : Optional.empty()));
    }

    /** The same version again, with the variables and secrets as they are now, through the gate before. */
    long redeploy(Place place, Person person, Optional<String> comment, Optional<String> emergency) {
        return requests.request(new Wanted(place, places.requireLive(place), Kind.REDEPLOY, Optional.of(person),
                new Cause.Asked(person.name(), comment), emergency));
    }
}
