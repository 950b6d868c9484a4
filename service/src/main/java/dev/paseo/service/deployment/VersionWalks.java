package dev.paseo.service.deployment;

import dev.paseo.service.environment.Environments;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.place.Places;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** The walk of a version: how it is at each stop of its route. */
@Component
class VersionWalks {

    /**
     * An environment of the walk: whether the version is live there, was, and how it went; {@code stays} says why it
     * does not go there by itself, {@code keeps} why it does not go on from there.
     *
     * @param noPlace why nothing of its component can be deployed there
     */
    record StopView(String environment, Optional<Long> passage, Optional<Instant> openedAt, Optional<Instant> endedAt,
            Optional<String> live, boolean gated, Optional<String> noPlace, Optional<String> stays,
            Optional<String> keeps) {}

    private final Environments environments;
    private final Places places;
    private final WalkStays stays;

    VersionWalks(Environments environments, Places places, WalkStays stays) {
        this.environments = environments;
        this.places = places;
        this.stays = stays;
    }

    List<StopView> of(Versions.Version version) {
        List<Environments.Stay> been = environments.stays(version.id());
        List<WalkStays.Stay> kept = stays.of(version.id());
        Set<String> gated = environments.all().stream().filter(known -> known.rules().asksPeople())
                .map(Environments.Environment::name).collect(Collectors.toSet());
        return version.route().environments().stream()
                .map(environment -> stop(version, environment, been, kept, gated.contains(environment))).toList();
    }

    private StopView stop(Versions.Version version, String environment, List<Environments.Stay> been,
            List<WalkStays.Stay> kept, boolean gated) {
        Optional<Environments.Stay> stay = been.stream().filter(each -> each.environment().equals(environment))
                .findFirst();
        Optional<String> live = environments.find(version.component(), environment).flatMap(places::live)
                .map(Versions.Version::number);
        return new StopView(environment, stay.map(Environments.Stay::passage), stay.map(Environments.Stay::openedAt),
                stay.flatMap(Environments.Stay::endedAt), live, gated,
                environments.whyNoPlace(version.component(), environment),
                kept.stream().filter(each -> each.environment().equals(environment))
                        .map(WalkStays.Stay::reason).findFirst(),
                stay.filter(each -> live.equals(Optional.of(version.number()))).flatMap(Environments.Stay::keeps));
    }
}
