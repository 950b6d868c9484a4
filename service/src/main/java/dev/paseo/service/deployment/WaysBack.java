package dev.paseo.service.deployment;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.RollbackTarget;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * What people do about what is live: go back from it, deploy it again, bring hosts to it, say that it is so already.
 */
@Component
class WaysBack {

    private final Requests requests;
    private final Places places;
    private final Deployments deployments;
    private final Environments environments;
    private final Around around;

    /** What these leave. */
    @Component("waysBackAround")
    record Around(Versions versions, AuditTrail audit, Recording recording, HostContents contents) {}

    WaysBack(Requests requests, Places places, Deployments deployments, Environments environments, Around around) {
        this.requests = requests;
        this.places = places;
        this.deployments = deployments;
        this.environments = environments;
        this.around = around;
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
                        around.versions().noWayBack(live.get()))
                .flatMap(chosen -> past.stream().filter(each -> each.deployment() == chosen).findFirst())
                .map(each -> around.versions().byId(each.version()));
    }

    private Versions.Version live(Place place) {
        return places.live(place).orElseThrow(
                () -> Refusal.conflict("Nothing of " + place.component() + " is live in " + place.environment()));
    }

    /** Back to the last good version, or to the one that is named; the place is held from now on. */
    long rollback(Place place, Person person, Optional<String> to, String reason, boolean emergency) {
        Versions.Version now = live(place);
        Versions.Version target = to
                .map(number -> around.versions().numbered(place.componentId(), place.component(), number))
                .or(() -> target(place))
                .orElseThrow(() -> Refusal.conflict(
                        "There is no version to roll back to: no other version that is neither blocked, undone nor "
                                + "rolled back from"
                                + " was live in " + place.environment() + " before " + now.number()));
        boolean wasLive = deployments.past(place.id()).stream().anyMatch(each -> each.version() == target.id());
        Optional<String> barred = around.versions().noWayBack(now).filter(no -> no.bars(target.line(), target.order()))
                .map(no -> now.recipe().orElseThrow().noWayBackBefore().orElseThrow());
        RollbackTarget
                .refusal(new RollbackTarget.Wanted(now.number(), target.number(), place.environment(), wasLive, barred))
                .ifPresent(why -> {
                    throw Refusal.conflict(why);
                });
        return requests.request(new Requests.Wanted(place, target, Kind.ROLLBACK, Optional.of(person),
                new Cause.Asked(person.name(), Optional.of(reason)),
                emergency ? Optional.of(reason) : Optional.empty()));
    }

    /** The same version again, with the variables and secrets as they are now, through the gate before. */
    long redeploy(Place place, Person person, Optional<String> comment, Optional<String> emergency) {
        return requests.request(new Requests.Wanted(place, live(place), Kind.REDEPLOY, Optional.of(person),
                new Cause.Asked(person.name(), comment), emergency));
    }

    /**
     * Hosts are brought to what is live again, as it was deployed; none named: those that differ from it or are
     * unhealthy. The hosts.
     */
    List<String> repair(Place place, String by, List<String> named) {
        List<String> known = environments.hosts(place.id()).stream().map(Environments.PlaceHost::name).toList();
        named.stream().filter(host -> !known.contains(host)).findFirst().ifPresent(host -> {
            throw Refusal.notFound(place.component() + " has no host " + host + " in " + place.environment()
                    + "; it has " + String.join(", ", known));
        });
        live(place);
        List<String> hosts = named.isEmpty() ? around.recording().differing(place) : named;
        if (hosts.isEmpty()) {
            throw Refusal.conflict("Every host of " + place.component() + " in " + place.environment()
                    + " has the live version and answers: nothing needs repair");
        }
        lacks(place, hosts).ifPresent(why -> {
            throw Refusal.conflict("Nothing was started: " + why);
        });
        places.require(place.id(), now -> {
            around.audit().record(AuditTrail.Entry.of(by, "repair asked", place.component()).in(place.environment())
                    .with("hosts", String.join(", ", hosts)));
            return Optional.of(new PlaceEvent.TendAsked(hosts));
        }, reason -> Refusal.conflict("Nothing was started: " + reason));
        return hosts;
    }

    private Optional<String> lacks(Place place, List<String> hosts) {
        return place.liveDeployment().flatMap(deployments::find).flatMap(row -> hosts.stream()
                .flatMap(host -> around.contents().lacks(place, live(place), host, row.settingsRevision()).stream())
                .findFirst());
    }

    /** A person says whether it goes on where the plan asks. */
    void answer(long id, Person person, boolean yes) {
        Deployment row = deployments.get(id);
        places.require(row.placeId(), place -> {
            around.audit()
                    .record(AuditTrail.Entry
                            .of(person.name(), yes ? "said go on" : "said do not go on", place.component())
                            .in(place.environment())
                            .with("deployment", Long.toString(id)));
            return Optional.of(new PlaceEvent.Answered(id, person.name(), yes));
        }, reason -> Refusal.conflict("Nothing was decided: " + reason));
    }

    /** Writes down what is live already, on the day that Paseo is brought in. */
    long record(Place place, Versions.Version version, Person person, String reason) {
        return around.recording().record(place, version, person, reason);
    }
}
