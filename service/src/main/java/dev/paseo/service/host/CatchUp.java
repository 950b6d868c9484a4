package dev.paseo.service.host;

import dev.paseo.service.change.Changes;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.Tending;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.host.HostReportMapper.PlaceHostRow;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
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

/**
 * Brings hosts that are new at a place, or were in maintenance or away when it was deployed to, to what is live there.
 */
@Component
class CatchUp {

    private static final Logger LOG = LoggerFactory.getLogger(CatchUp.class);
    /** A host that could not be brought to it is tried again after this time. */
    private static final Duration AGAIN = Duration.ofMinutes(1);
    /** So many are brought to it with one look; those that were tried lately are not among them. */
    private static final int A_TIME = 200;

    private final Changes changes;
    private final HostReportMapper mapper;
    private final Deployments deployments;
    private final Places places;
    private final HostContents contents;
    private final Map<PlaceHostRow, Long> tried = new ConcurrentHashMap<>();

    CatchUp(HostReportMapper mapper, Deployments deployments, Places places, Changes changes, HostContents contents) {
        this.changes = changes;
        this.mapper = mapper;
        this.deployments = deployments;
        this.places = places;
        this.contents = contents;
    }

    @Scheduled(fixedDelay = 2000)
    void sweep() {
        try {
            long now = System.nanoTime();
            tried.values().removeIf(at -> now - at > AGAIN.toNanos());
            mapper.strangers(changes.now().minusSeconds(45)).stream().filter(host -> !tried.containsKey(host))
                    .limit(A_TIME).forEach(host -> bring(host, now));
        } catch (RuntimeException failed) {
            LOG.warn("late hosts are not looked after for the moment: {}", failed.toString());
        }
    }

    private void bring(PlaceHostRow host, long now) {
        tried.put(host, now);
        try {
            places.require(host.placeId(), place -> tend(place, host), Refusal::conflict);
        } catch (Refusal refused) {
            LOG.info("{} does not catch up with {} in {}: {}", host.host(), host.component(), host.environment(),
                    refused.getMessage());
        }
    }

    private Tending.Host compared(Environments.Place place, Deployment live, String host) {
        return new Tending.Host(host, Optional.empty(), false, deployments.state(live).host(host),
                contents.given(place, live, host),
                Optional.ofNullable(contents.had(place).get(host)), false);
    }

    private Optional<PlaceEvent> tend(Environments.Place place, PlaceHostRow host) {
        Optional<Deployment> row = place.liveDeployment().flatMap(deployments::find);
        if (row.filter(live -> Tending.catchesUp(compared(place, live, host.host()))).isEmpty()) {
            return Optional.empty();
        }
        Optional<String> lacks = places.live(place)
                .flatMap(live -> contents.lacks(place, live, host.host(), row.get().settingsRevision()));
        if (lacks.isPresent()) {
            throw Refusal.conflict(lacks.get());
        }
        changes.record(AuditTrail.Entry.of("paseo", "host catches up", host.component()).in(host.environment())
                .with("host", host.host()));
        return Optional.of(new PlaceEvent.TendAsked(List.of(host.host())));
    }
}
