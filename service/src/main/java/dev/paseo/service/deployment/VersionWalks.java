package dev.paseo.service.deployment;

import dev.paseo.service.environment.Environments;
import dev.paseo.service.passage.Passages;
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
    private final Passages passages;

    VersionWalks(Environments environments, Places places, WalkStays stays, Passages passages) {
        this.passages = passages;
        this.environments = environments;
        this.places = places;
        this.stays = stays;
    }

    List<StopView> of(Versions.Version version) {
        List<Passages.Walked> been = passages.walked(version.id());
        List<WalkStays.Stay> kept = stays.of(version.id());
        Set<String> gated = environments.all().stream().filter(known -> known.rules().asksPeople())
                .map(Environments.Environment::name).collect(Collectors.toSet());
        return version.route().environments().stream()
                .map(environment -> stop(version, environment, been, kept, gated.contains(environment))).toList();
    }

    private StopView stop(Versions.Version version, String environment, List<Passages.Walked> been,
            List<WalkStays.Stay> kept, boolean gated) {
        Optional<Passages.Walked> stay = been.stream().filter(each -> each.environment().equals(environment))
                .findFirst();
        Optional<String> live = environments.find(version.component(), environment).flatMap(places::live)
                .map(Versions.Version::number);
        return new StopView(environment, stay.map(Passages.Walked::passage), stay.map(Passages.Walked::openedAt),
                stay.flatMap(Passages.Walked::endedAt), live, gated,
                environments.whyNoPlace(version.component(), environment),
                kept.stream().filter(each -> each.environment().equals(environment))
                        .map(WalkStays.Stay::reason).findFirst(),
                stay.filter(each -> live.equals(Optional.of(version.number()))).flatMap(Passages.Walked::keeps));
    }
}
