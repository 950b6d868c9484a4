package dev.paseo.service.host;

import dev.paseo.service.change.Changes;
import dev.paseo.api.agent.Watch;
import dev.paseo.core.deployment.HostDoubt;
import dev.paseo.core.deployment.HostHealth;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.engine.LiveEvents;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.host.HostReportMapper.ReportRow;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What hosts report of what is live on them: whether it answers, and whether its files are the version's own. */
@Component
class HostWatch {

    /** So many failures in a row are unhealthy. */
    private static final int MOST_FILES = 10_000;
    private static final int LONGEST_PATH = 4096;
    private static final Pattern DIGEST = Pattern.compile("|[0-9a-f]{64}");

    private final HostReportMapper mapper;
    private final Deployments deployments;
    private final Environments environments;
    private final HostTasks tasks;
    private final LiveEvents live;
    private final Around around;

    /** How it is written down. */
    @Component("hostWatchAround")
    record Around(Changes changes, Settings settings, Stretches stretches, Places places) {}

    HostWatch(HostReportMapper mapper, Deployments deployments, Environments environments, HostTasks tasks,
            LiveEvents live, Around around) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.environments = environments;
        this.tasks = tasks;
        this.live = live;
        this.around = around;
    }

    Watch.Watched watched(long agent, Optional<Long> host, Optional<String> renewal) {
        List<Watch.OnHost> hosts = mapper.watched(agent, host.orElse(null)).stream()
                .flatMap(row -> deployments.find(row.deploymentId()).stream().map(deployment -> {
                    PlaceHost on = environments.host(row.placeId(), row.hostId()).orElseThrow();
                    HostTasks.Watched watched = tasks.watched(deployment, on);
                    return new Watch.OnHost(row.placeId(), row.hostId(), row.deploymentId(), watched.installed(),
                            watched.checks(), watched.ssh());
                })).toList();
        return new Watch.Watched(hosts, (int) around.settings().watchEvery().toSeconds(), renewal);
    }

    void report(long agent, Optional<Long> host, Watch.Report report) {
        report.seen().forEach(HostWatch::check);
        List<HostReportMapper.WatchedRow> may = mapper.watched(agent, host.orElse(null));
        around.changes().run(() -> {
            host.filter(own -> report.diskTotal() > 0)
                    .ifPresent(own -> mapper.disk(own, report.diskFree(), report.diskTotal()));
            Map<Boolean, List<Watch.Seen>> seen = report.seen().stream().filter(
                    each -> may.contains(new HostReportMapper.WatchedRow(each.place(), each.host(), each.deployment())))
                    .collect(Collectors.partitioningBy(this::unknown));
            seen.get(false).forEach(this::take);
            seen.get(true).stream().collect(Collectors.groupingBy(each -> List.of(each.place(), each.host()))).values()
                    .forEach(this::found);
        });
    }

    private static void check(Watch.Seen seen) {
        if (seen.differing().size() > MOST_FILES || seen.differing().entrySet().stream().anyMatch(
                file -> file.getKey().length() > LONGEST_PATH || !DIGEST.matcher(file.getValue()).matches())) {
            throw Refusal.invalid("/seen/differing", "should be at most " + MOST_FILES
                    + " paths, each with the SHA-256 digest of its file in hexadecimal, or nothing where there is "
                    + "no file");
        }
    }

    private boolean unknown(Watch.Seen seen) {
        return deployments.isUnknown(seen.place(), seen.host());
    }

    private void take(Watch.Seen seen) {
        HostHealth before = mapper.of(seen.place(), seen.host()).filter(row -> row.deploymentId() == seen.deployment())
                .map(HostWatch::health).orElse(HostHealth.UNSEEN);
        Instant now = around.changes().now();
        Optional<String> differing = seen.differing().isEmpty() ? Optional.empty()
                : Optional.of(Shortened.to(sentence(seen.differing()), 2000));
        HostHealth health = before.seen(seen.failing().isPresent(), differing, now);
        String name = environments.hostName(seen.host());
        mapper.keep(new ReportRow(seen.place(), seen.host(), name, seen.deployment(), now, health.failures(),
                seen.failing().map(why -> Shortened.to(why, 1000)).orElse(null),
                health.unhealthySince().orElse(null), health.drift().orElse(null), health.driftedSince().orElse(null)));
        for (HostHealth.Change change : health.since(before)) {
            switch (change) {
                case UNHEALTHY -> around.stretches().end(seen.place());
                case HEALTHY_AGAIN -> around.stretches().begin(seen.place());
                case DRIFT, DRIFT_ENDED -> {}
            }
            boolean drift = change == HostHealth.Change.DRIFT || change == HostHealth.Change.DRIFT_ENDED;
            tellWhere(seen.place(), name, change.words(), drift ? differing.orElse("") : seen.failing().orElse(""));
        }
    }

    private static HostHealth health(ReportRow row) {
        return new HostHealth(row.failures(), Optional.ofNullable(row.unhealthySince()),
                Optional.ofNullable(row.drift()), Optional.ofNullable(row.driftedSince()));
    }

    /** Nobody knew what the host has. */
    private void found(List<Watch.Seen> seen) {
        long place = seen.getFirst().place();
        long host = seen.getFirst().host();
        PlaceHost on = environments.host(place, host).orElseThrow();
        HostDoubt.settled(seen.stream().map(each -> {
            HostTasks.Watched asked = tasks.watched(deployments.get(each.deployment()), on);
            return new HostDoubt.Candidate(each.deployment(), !asked.installed().isEmpty() || !asked.checks().isEmpty(),
                    each.differing().isEmpty() && each.failing().isEmpty());
        }).toList()).ifPresent(deployment -> {
            if (around.places().change(place, now -> Optional.of(new PlaceEvent.Found(on.name(), deployment)))
                    .isEmpty()) {
                tellWhere(place, on.name(), "found what is there",
                        "its files and checks are those of deployment " + deployment);
            }
        });
    }

    private void tellWhere(long place, String host, String what, String why) {
        Environments.Place where = environments.placeById(place);
        around.changes()
                .record(AuditTrail.Entry.of(host, what, where.component()).in(where.environment()).because(why));
        live.publish("whereabouts", where.component());
    }

    private static String sentence(Map<String, String> differing) {
        return differing.entrySet().stream().map(each -> each.getKey() + (each.getValue().isEmpty() ? " is not there"
                : " has other bytes, sha256 " + each.getValue())).sorted().collect(Collectors.joining("; "));
    }
}
