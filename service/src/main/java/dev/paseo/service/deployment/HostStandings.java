package dev.paseo.service.deployment;

import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.Tending;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.host.HostReports;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments.HostLive;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** How the hosts of a place stand: what they have, how they are, and whether that is what should be live on them. */
@Component
class HostStandings {

    /**
     * A host: what it has, since when, what differs, and how it is.
     *
     * @param reachedBy     the agent that acts for one without an agent of its own
     * @param unknownSince  since when nobody knows what it has: a deployment was lost there, or could not be undone
     * @param olderSettings the variables and secrets that are set otherwise for it now than when it was deployed to
     */
    record HereView(String host, Optional<String> url, Optional<String> side, Optional<String> version,
            Optional<Instant> since, Optional<String> drift,
            Optional<Instant> driftedSince, Optional<String> failing, Optional<Instant> unhealthySince,
            Optional<Instant> checkedAt, Optional<String> maintenance, Optional<String> reachedBy,
            Optional<Instant> unknownSince, List<String> olderSettings) {}

    private final Deployments deployments;
    private final HostReports reports;
    private final HostContents contents;
    private final Places places;
    private final Environments environments;

    HostStandings(Deployments deployments, HostReports reports, HostContents contents, Places places,
            Environments environments) {
        this.deployments = deployments;
        this.reports = reports;
        this.contents = contents;
        this.places = places;
        this.environments = environments;
    }

    List<HereView> of(Place place) {
        Map<String, HostLive> have = deployments.hostsLive(place.id()).stream()
                .collect(Collectors.toMap(HostLive::host, row -> row));
        Map<String, HostReports.Report> seen = reports.ofPlace(place.id());
        Map<String, Instant> doubts = deployments.unknown(place.id());
        Map<String, HostContent> had = contents.had(place);
        Function<String, HostContent> now = places.live(place).map(version -> contents.now(place, version))
                .orElse(host -> new HostContent("", Map.of(), Map.of()));
        return environments.hosts(place.id()).stream()
                .map(host -> here(host, Optional.ofNullable(have.get(host.name())),
                        Optional.ofNullable(seen.get(host.name())), Optional.ofNullable(doubts.get(host.name())),
                        Optional.ofNullable(had.get(host.name()))
                                .filter(has -> place.liveSide().isEmpty() || host.side().equals(place.liveSide()))
                                .map(has -> now.apply(host.name()).settingsUnlike(has)).orElse(List.of())))
                .toList();
    }

    private HereView here(PlaceHost host, Optional<HostLive> has, Optional<HostReports.Report> seen,
            Optional<Instant> unknownSince, List<String> olderSettings) {
        return new HereView(host.name(), host.url(), host.side(), has.flatMap(HostLive::version),
                has.flatMap(HostLive::since), seen.flatMap(HostReports.Report::drift),
                seen.flatMap(HostReports.Report::driftedSince), seen.flatMap(HostReports.Report::failing),
                seen.flatMap(HostReports.Report::unhealthySince), seen.map(HostReports.Report::checkedAt),
                host.maintenance(), host.servedBy().map(environments::agentName), unknownSince, olderSettings);
    }

    /**
     * The hosts of the live side, not in maintenance, that do not have what is live with the settings that it was
     * deployed with, have files that differ from it, or are unhealthy.
     */
    List<String> differing(Place place) {
        Optional<Deployment> live = place.liveDeployment().flatMap(deployments::find);
        Map<String, HostContent> had = contents.had(place);
        Map<String, HostReports.Report> seen = reports.ofPlace(place.id());
        return live.map(row -> Tending.differing(
                environments.hosts(place.id()).stream()
                        .map(host -> new Tending.Host(host.name(), host.side(), host.maintenance().isPresent(),
                                Optional.empty(), contents.given(place, row, host.name()),
                                Optional.ofNullable(had.get(host.name())),
                                Optional.ofNullable(seen.get(host.name())).filter(HostReports.Report::amiss)
                                        .isPresent()))
                        .toList(),
                place.liveSide())).orElse(List.of());
    }

    /** What one of these hosts lacks to be given again what is live. */
    Optional<String> lacking(Place place, Versions.Version live, List<String> hosts) {
        return place.liveDeployment().flatMap(deployments::find).flatMap(row -> hosts.stream()
                .flatMap(host -> contents.lacks(place, live, host, row.settingsRevision()).stream())
                .findFirst());
    }
}
