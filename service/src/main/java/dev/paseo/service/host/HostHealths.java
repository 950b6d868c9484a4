package dev.paseo.service.host;

import dev.paseo.api.agent.Watch;
import dev.paseo.core.deployment.HostHealth;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.host.HostReportMapper.ReportRow;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** How hosts are: whether what is live on them answers, and whether its files are the version's own. */
@Component
class HostHealths {

    private final HostReportMapper mapper;
    private final Environments environments;
    private final Stretches stretches;
    private final HostTrail trail;
    private final ServiceClock clock;

    HostHealths(HostReportMapper mapper, Environments environments, Stretches stretches, HostTrail trail,
            ServiceClock clock) {
        this.mapper = mapper;
        this.environments = environments;
        this.stretches = stretches;
        this.trail = trail;
        this.clock = clock;
    }

    /** In the transaction of the report. */
    void take(Watch.Seen seen) {
        HostHealth before = mapper.of(seen.place(), seen.host()).filter(row -> row.deploymentId() == seen.deployment())
                .map(HostHealths::health).orElse(HostHealth.UNSEEN);
        Instant now = clock.now();
        Optional<String> differing = seen.differing().isEmpty() ? Optional.empty()
                : Optional.of(Shortened.to(sentence(seen.differing()), 2000));
        HostHealth health = before.seen(seen.failing().isPresent(), differing, now);
        String name = environments.hostName(seen.host());
        mapper.keep(new ReportRow(seen.place(), seen.host(), name, seen.deployment(), now, health.failures(),
                seen.failing().map(why -> Shortened.to(why, 1000)).orElse(null),
                health.unhealthySince().orElse(null), health.drift().orElse(null), health.driftedSince().orElse(null)));
        for (HostHealth.Change change : health.since(before)) {
            switch (change) {
                case UNHEALTHY -> stretches.end(seen.place());
                case HEALTHY_AGAIN -> stretches.begin(seen.place());
                case DRIFT, DRIFT_ENDED -> {}
            }
            boolean drift = change == HostHealth.Change.DRIFT || change == HostHealth.Change.DRIFT_ENDED;
            trail.record(seen.place(), name, change.words(), drift ? differing.orElse("") : seen.failing().orElse(""));
        }
    }

    private static HostHealth health(ReportRow row) {
        return new HostHealth(row.failures(), Optional.ofNullable(row.unhealthySince()),
                Optional.ofNullable(row.drift()), Optional.ofNullable(row.driftedSince()));
    }

    private static String sentence(Map<String, String> differing) {
        return differing.entrySet().stream().map(each -> each.getKey() + (each.getValue().isEmpty() ? " is not there"
                : " has other bytes, sha256 " + each.getValue())).sorted().collect(Collectors.joining("; "));
    }
}
