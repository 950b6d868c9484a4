package dev.paseo.service.deployment;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.Plan;
import dev.paseo.core.deployment.Tending;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.host.HostReports;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.LiveStates;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/**
 * What hosts have, compared with what should be live on them; and the day on which that is written down for the first
 * time.
 */
@Component
class Recording {

    private final Deployments deployments;
    private final HostReports reports;
    private final Places places;
    private final Environments environments;
    private final Writing writing;
    private final Hearers hearers;

    /** How it is written. */
    @Component("recordingWriting")
    record Writing(Transactions transactions, Causes causes, HostContents contents) {}

    /** Whoever is told. */
    @Component("recordingHearers")
    record Hearers(Changes changes, Passages passages, Stretches stretches, LiveStates live) {}

    Recording(Deployments deployments, HostReports reports, Places places, Environments environments, Writing writing,
            Hearers hearers) {
        this.deployments = deployments;
        this.reports = reports;
        this.places = places;
        this.environments = environments;
        this.writing = writing;
        this.hearers = hearers;
    }

    /**
     * The hosts of the live side, not in maintenance, that do not have what is live with the settings that it was
     * deployed with, have files that differ from it, or are unhealthy.
     */
    List<String> differing(Place place) {
        Optional<Deployment> live = place.liveDeployment().flatMap(deployments::find);
        Map<String, HostContent> had = writing.contents().had(place);
        Map<String, HostReports.Report> seen = reports.ofPlace(place.id());
        return live.map(row -> Tending.differing(
                environments.hosts(place.id()).stream()
                        .map(host -> new Tending.Host(host.name(), host.side(), host.maintenance().isPresent(),
                                Optional.empty(), writing.contents().given(place, row, host.name()),
                                Optional.ofNullable(had.get(host.name())),
                                Optional.ofNullable(seen.get(host.name())).filter(HostReports.Report::amiss)
                                        .isPresent()))
                        .toList(),
                place.liveSide())).orElse(List.of());
    }

    /** A version is live already, although nothing was deployed by Paseo: from now on that is known. */
    long record(Place place, Versions.Version version, Person person, String reason) {
        if (version.recipe().isEmpty()) {
            throw Refusal
                    .conflict(version.component() + " " + version.number() + " has no deployment in its pipeline file");
        }
        return writing.transactions().in(() -> {
            long[] id = new long[1];
            places.require(place.id(), now -> {
                long cause = writing.causes().add(
                        new Cause.Asked(person.name(), Optional.of("recorded as live already: " + reason)),
                        OptionalLong.empty());
                id[0] = deployments.ask(new Deployments.Asked(now.id(), version.id(), Kind.PROMOTION,
                        Optional.of(person.id()), cause, now.settingsRevision(), Optional.empty()));
                return Optional.of(new PlaceEvent.Recorded(id[0], version.number(), version.line(), version.order(),
                        environments.hosts(now.id()).stream()
                                .map(host -> new Plan.Host(host.name(), host.side(), false)).toList()));
            }, why -> Refusal.conflict(place.component() + " in " + place.environment() + ": " + why));
            hearers.stretches().begin(place.id());
            hearers.passages().recorded(version.id(), place.environmentId());
            hearers.changes()
                    .record(hearers.live()
                            .into(AuditTrail.Entry
                                    .of(person.name(), "recorded as live", version.component() + " " + version.number())
                                    .in(place.environment())
                                    .because(reason).with("deployment", Long.toString(id[0])), place.id()));
            hearers.changes().publish("whereabouts", place.component());
            return id[0];
        });
    }
}
