package dev.paseo.service.request;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Review;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.SetMembership;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** Gives a deployment its number, with why it is asked for, its set, and its review where it is an emergency. */
@Component
public class NewDeployments {

    private final Deployments deployments;
    private final Causes causes;
    private final SetMembership sets;
    private final ServiceClock clock;

    NewDeployments(Deployments deployments, Causes causes, SetMembership sets, ServiceClock clock) {
        this.deployments = deployments;
        this.causes = causes;
        this.sets = sets;
        this.clock = clock;
    }

    /** In the transaction that asks the place. */
    long add(Place now, Wanted wanted) {
        long because = causes.add(wanted.cause(), OptionalLong.of(parent(wanted.version(), wanted.cause())));
        long id = deployments.ask(new Deployments.Asked(now.id(), wanted.version().id(), wanted.kind(),
                wanted.person().map(Person::id), because, now.settingsRevision(), wanted.emergency()));
        wanted.promotion().map(of -> of.applyAsLong(id)).ifPresent(promotion -> sets.belongs(id, promotion));
        wanted.emergency().ifPresent(why -> deployments.toReview(id, Review.due(clock.now())));
        return id;
    }

    /** One that was live before Paseo was brought in; in the transaction that records it. */
    public long recorded(Place now, Versions.Version version, Person person, String reason) {
        long because = causes.add(new Cause.Asked(person.name(), Optional.of("recorded as live already: " + reason)),
                OptionalLong.empty());
        return deployments.ask(new Deployments.Asked(now.id(), version.id(), Kind.PROMOTION, Optional.of(person.id()),
                because, now.settingsRevision(), Optional.empty()));
    }

    /**
     * Back from the walk to the deployment it came from, from there to the run; from a request to the version's run.
     */
    private long parent(Versions.Version version, Cause cause) {
        if (cause instanceof Cause.Walk(String component, String number, String from) && !from.isEmpty()) {
            Optional<Long> earlier = deployments.ofVersion(version.id()).stream()
                    .filter(row -> row.environment().equals(from))
                    .map(Deployment::causeId).findFirst();
            if (earlier.isPresent()) {
                return earlier.get();
            }
        }
        return version.runNumber().map(
                run -> causes.add(new Cause.Run(version.component(), run), OptionalLong.of(version.cause())))
                .orElse(version.cause());
    }
}
