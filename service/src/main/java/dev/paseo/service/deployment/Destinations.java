package dev.paseo.service.deployment;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.service.deployment.DeploymentViews.HostView;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Where a deployment goes: how far it is on which hosts, and what whoever sends it there should know. */
@Component
class Destinations {

    /** What each part means is told with the whole deployment. */
    record Destination(DeploymentState state, List<HostView> hosts, Optional<String> url, Optional<String> behindUrl,
            Optional<String> newer, List<String> cautions, String zone) {}

    private final Deployments deployments;
    private final Environments environments;
    private final Places places;
    private final PlacePlans plans;

    Destinations(Deployments deployments, Environments environments, Places places, PlacePlans plans) {
        this.deployments = deployments;
        this.environments = environments;
        this.places = places;
        this.plans = plans;
    }

    Destination of(Deployment row, Place place, Versions.Version version) {
        Environments.Environment environment = environments.of(place);
        Optional<Place> followed = environment.rules().followed().stream()
                .flatMap(other -> environments.find(place.component(), other).stream()).findFirst();
        DeploymentState state = deployments.state(row);
        return new Destination(state, hosts(place, state), place.url(), followed.flatMap(Place::url),
                newer(followed, row, version), withReview(cautions(place, row, version), row.id()),
                environment.zone());
    }

    /** What went live under something that was loosened says so until somebody has looked at it. */
    private List<String> withReview(List<String> cautions, long deployment) {
        List<String> all = new ArrayList<>(cautions);
        deployments.toReview(deployment).filter(review -> !review.done()).flatMap(Deployments.ToReview::reason)
                .ifPresent(reason -> all.add(
                        "It went live within a day of this: " + reason
                                + ". Somebody else reviews it within three days: paseo review deployment "
                                + deployment));
        return all;
    }

    private List<String> cautions(Place place, Deployment row, Versions.Version version) {
        boolean begins = row.status().ahead() && row.requestedBy() != null;
        return begins ? plans.cautions(place, version, row.kind()) : List.of();
    }

    private List<HostView> hosts(Place place, DeploymentState state) {
        Map<String, Optional<String>> live = new java.util.HashMap<>();
        deployments.hostsLive(place.id()).forEach(host -> live.put(host.host(), host.version()));
        Set<String> unknown = deployments.unknown(place.id()).keySet();
        Map<String, Optional<String>> urls = new java.util.HashMap<>();
        environments.hosts(place.id()).forEach(host -> urls.put(host.name(), host.url()));
        return state.hosts().stream()
                .map(host -> new HostView(host.host(), host.phase(), host.touched(), host.reason(),
                        urls.getOrDefault(host.host(), Optional.empty()),
                        live.getOrDefault(host.host(), Optional.empty()), unknown.contains(host.host())))
                .toList();
    }

    /** A newer version of the same line, live in the environment that this one follows. */
    private Optional<String> newer(Optional<Place> followed, Deployment row, Versions.Version version) {
        if (row.status() != DeploymentStatus.WAITING) {
            return Optional.empty();
        }
        return followed.flatMap(places::live)
                .filter(other -> other.line() == version.line() && other.order() > version.order())
                .map(Versions.Version::number);
    }
}
