package dev.paseo.service.deployment;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.deployment.HostReportMapper.PlaceHostRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Brings hosts that are new at a place, or were in maintenance or away when it was deployed to, to what is live there. */
@Component
class CatchUp {

    private static final Logger LOG = LoggerFactory.getLogger(CatchUp.class);
    /** A host that could not be brought to it is tried again after this time. */
    private static final Duration AGAIN = Duration.ofMinutes(1);

    private final HostReportMapper mapper;
    private final DeploymentMapper deployments;
    private final Places places;
    private final AuditTrail audit;
    private final Json json;
    private final ServiceClock clock;
    private final HostContents contents;
    private final Map<PlaceHostRow, Long> tried = new ConcurrentHashMap<>();

    /** How it is written down. */
    @Component("catchUpWriting")
    record Writing(AuditTrail audit, Json json, ServiceClock clock, HostContents contents) {}

    CatchUp(HostReportMapper mapper, DeploymentMapper deployments, Places places, Writing writing) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.places = places;
        this.audit = writing.audit();
        this.json = writing.json();
        this.clock = writing.clock();
        this.contents = writing.contents();
    }

    @Scheduled(fixedDelay = 2000)
    void sweep() {
        try {
            long now = System.nanoTime();
            tried.values().removeIf(at -> now - at > AGAIN.toNanos());
            mapper.strangers(clock.now().minusSeconds(45)).stream().filter(host -> !tried.containsKey(host)).forEach(host -> bring(host, now));
        } catch (RuntimeException failed) {
            LOG.warn("late hosts are not looked after for the moment: {}", failed.toString());
        }
    }

    private void bring(PlaceHostRow host, long now) {
        tried.put(host, now);
        try {
            places.require(host.placeId(), place -> tend(place, host), Refusal::conflict);
        } catch (Refusal refused) {
            LOG.info("{} does not catch up with {} in {}: {}", host.host(), host.component(), host.environment(), refused.getMessage());
        }
    }

    private Optional<PlaceEvent> tend(Environments.Place place, PlaceHostRow host) {
        Optional<DeploymentRow> row = place.liveDeployment().flatMap(deployments::byId);
        boolean late = row.isPresent() && json.read(row.get().state(), DeploymentState.class).host(host.host()).map(HostState::late).orElse(true);
        boolean same = row.isPresent() && contents.given(place, row.get(), host.host()).equals(contents.had(place).get(host.host()));
        if (!late || same) {
            return Optional.empty();
        }
        Optional<String> lacks = places.live(place).flatMap(live -> contents.lacks(place, live, host.host(), row.get().settingsRevision()));
        if (lacks.isPresent()) {
            throw Refusal.conflict(lacks.get());
        }
        audit.record(AuditTrail.Entry.of("paseo", "host catches up", host.component()).in(host.environment()).with("host", host.host()));
        return Optional.of(new PlaceEvent.TendAsked(List.of(host.host())));
    }
}
