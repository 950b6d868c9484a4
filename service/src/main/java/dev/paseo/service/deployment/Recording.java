package dev.paseo.service.deployment;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** What hosts have, compared with what should be live on them; and the day on which that is written down for the first time. */
@Component
class Recording {

    private final DeploymentMapper mapper;
    private final HostReportMapper reports;
    private final Environments environments;
    private final Writing writing;
    private final Hearers hearers;

    /** How it is written. */
    @Component("recordingWriting")
    record Writing(Transactions transactions, ServiceClock clock, Json json, Causes causes, HostContents contents) {}

    /** Whoever is told. */
    @Component("recordingHearers")
    record Hearers(AuditTrail audit, Telling telling, Passages passages, Stretches stretches) {}

    Recording(DeploymentMapper mapper, HostReportMapper reports, Environments environments, Writing writing, Hearers hearers) {
        this.mapper = mapper;
        this.reports = reports;
        this.environments = environments;
        this.writing = writing;
        this.hearers = hearers;
    }

    /**
     * The hosts of the live side, not in maintenance, that do not have what is live with the settings that it was deployed
     * with, have files that differ from it, or are unhealthy.
     */
    List<String> differing(Place place) {
        Optional<DeploymentMapper.DeploymentRow> live = place.liveDeployment().flatMap(mapper::byId);
        Map<String, HostContent> had = writing.contents().had(place);
        List<String> amiss = reports.ofPlace(place.id()).stream().filter(row -> row.drift() != null || row.unhealthySince() != null).map(HostReportMapper.ReportRow::host).toList();
        return live.map(row -> environments.hosts(place.id()).stream()
                .filter(host -> host.maintenance().isEmpty() && (place.liveSide().isEmpty() || host.side().equals(place.liveSide()))).map(PlaceHost::name)
                .filter(name -> amiss.contains(name) || !writing.contents().given(place, row, name).equals(had.get(name))).toList()).orElse(List.of());
    }

    /** A version is live already, although nothing was deployed by Paseo: from now on that is known. */
    long record(Place place, Versions.Sealed version, Person person, String reason) {
        if (version.recipe().isEmpty()) {
            throw Refusal.conflict(version.component() + " " + version.number() + " has no deployment in its pipeline file");
        }
        return writing.transactions().in(() -> {
            mapper.lock(place.id());
            Place now = environments.placeById(place.id());
            if (now.liveDeployment().isPresent() || !mapper.open(now.id()).isEmpty()) {
                throw Refusal.conflict("what is live in " + place.environment() + " is known already, or on its way: recording is for the first day");
            }
            Instant at = writing.clock().now();
            long cause = writing.causes().add(new Cause.Asked(person.name(), Optional.of("recorded as live already: " + reason)), OptionalLong.empty());
            DeploymentMapper.NewDeployment row = new DeploymentMapper.NewDeployment(now.id(), version.id(), "promotion", person.id(), cause, now.settingsRevision(), at, null);
            mapper.add(row);
            List<PlaceHost> hosts = environments.hosts(now.id());
            Optional<String> side = hosts.stream().flatMap(host -> host.side().stream()).findFirst();
            DeploymentState state = new DeploymentState(row.id, version.number(), version.line(), version.order(), Kind.PROMOTION, false, DeploymentStatus.LIVE,
                    hosts.stream().map(host -> HostState.there(host.name())).toList(), DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.NONE, Optional.empty(),
                    Course.of(List.of(), new Course.Sides(side, Optional.empty()), 0), null);
            mapper.move(row.id, 0, "live", writing.json().write(state), "recorded as live already", at, at, null);
            mapper.live(now.id(), row.id, side.orElse(null));
            mapper.beginStretch(now.id(), row.id, version.id(), at);
            hosts.stream().filter(host -> host.side().equals(side)).forEach(host -> mapper.openInterval(host.id(), now.componentId(), version.id(), row.id, at));
            hearers.stretches().begin(now.id());
            hearers.passages().opened(version.id(), now.environmentId(), row.id);
            hearers.passages().recorded(version.id(), now.environmentId());
            hearers.audit().record(LiveStates.into(AuditTrail.Entry.of(person.name(), "recorded as live", version.component() + " " + version.number()).in(now.environment())
                    .because(reason).with("deployment", Long.toString(row.id)), now.id(), mapper));
            hearers.telling().tell("whereabouts", now.component());
            return row.id;
        });
    }
}
