package dev.paseo.service.deployment;

import dev.paseo.api.agent.Watch;
import dev.paseo.core.deployment.HostDoubt;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.deployment.HostReportMapper.ReportRow;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.settings.Settings;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What hosts report of what is live on them: whether it answers, and whether its files are the version's own. */
@Component
class HostWatch {

    /** So many failures in a row are unhealthy. */
    private static final int UNHEALTHY = 3;

    private final HostReportMapper mapper;
    private final DeploymentMapper deployments;
    private final Environments environments;
    private final HostTasks tasks;
    private final Telling telling;
    private final Around around;

    /** How it is written down. */
    @Component("hostWatchAround")
    record Around(Transactions transactions, ServiceClock clock, AuditTrail audit, Settings settings, Stretches stretches) {}

    HostWatch(HostReportMapper mapper, DeploymentMapper deployments, Environments environments, HostTasks tasks, Telling telling, Around around) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.environments = environments;
        this.tasks = tasks;
        this.telling = telling;
        this.around = around;
    }

    Watch.Watched watched(long agent, Optional<Long> host) {
        List<Watch.OnHost> hosts = mapper.watched(agent, host.orElse(null)).stream().flatMap(row -> deployments.byId(row.deploymentId()).stream().map(deployment -> {
            PlaceHost on = environments.host(row.placeId(), row.hostId()).orElseThrow();
            HostTasks.Watched watched = tasks.watched(deployment, on);
            return new Watch.OnHost(row.placeId(), row.hostId(), row.deploymentId(), watched.installed(), watched.checks(), watched.ssh());
        })).toList();
        return new Watch.Watched(hosts, (int) around.settings().watchEvery().toSeconds());
    }

    void report(long agent, Optional<Long> host, Watch.Report report) {
        List<HostReportMapper.WatchedRow> may = mapper.watched(agent, host.orElse(null));
        around.transactions().run(() -> {
            host.filter(own -> report.diskTotal() > 0).ifPresent(own -> mapper.disk(own, report.diskFree(), report.diskTotal()));
            Map<Boolean, List<Watch.Seen>> seen = report.seen().stream().filter(each -> may.contains(new HostReportMapper.WatchedRow(each.place(), each.host(), each.deployment())))
                    .collect(Collectors.partitioningBy(this::unknown));
            seen.get(false).forEach(this::take);
            seen.get(true).stream().collect(Collectors.groupingBy(each -> List.of(each.place(), each.host()))).values().forEach(this::found);
        });
    }

    private boolean unknown(Watch.Seen seen) {
        return deployments.inDoubt(seen.place(), seen.host());
    }

    private void take(Watch.Seen seen) {
        Optional<ReportRow> before = mapper.of(seen.place(), seen.host()).filter(row -> row.deploymentId() == seen.deployment());
        Instant now = around.clock().now();
        int failures = seen.failing().isPresent() ? before.map(ReportRow::failures).orElse(0) + 1 : 0;
        @Nullable Instant unhealthy = failures < UNHEALTHY ? null : before.map(ReportRow::unhealthySince).orElse(now);
        @Nullable String drift = seen.differing().isEmpty() ? null : shortened(sentence(seen.differing()), 2000);
        @Nullable Instant drifted = drift == null ? null : before.map(ReportRow::driftedSince).orElse(now);
        String name = environments.hostName(seen.host());
        mapper.keep(new ReportRow(seen.place(), seen.host(), name, seen.deployment(), now, failures, seen.failing().map(why -> shortened(why, 1000)).orElse(null),
                unhealthy, drift, drifted));
        boolean wasDrifted = before.filter(row -> row.drift() != null).isPresent();
        boolean wasUnhealthy = before.filter(row -> row.unhealthySince() != null).isPresent();
        tellWhere(seen.place(), name, wasDrifted != (drift != null) ? Optional.of(drift == null ? "drift ended" : "drift") : Optional.empty(), drift == null ? "" : drift);
        if (wasUnhealthy != (unhealthy != null)) {
            if (unhealthy != null) {
                around.stretches().end(seen.place());
            } else {
                around.stretches().begin(seen.place());
            }
        }
        tellWhere(seen.place(), name, wasUnhealthy != (unhealthy != null) ? Optional.of(unhealthy == null ? "healthy again" : "unhealthy") : Optional.empty(),
                seen.failing().orElse(""));
    }

    /** Nobody knew what the host has. */
    private void found(List<Watch.Seen> seen) {
        long place = seen.getFirst().place();
        long host = seen.getFirst().host();
        PlaceHost on = environments.host(place, host).orElseThrow();
        HostDoubt.settled(seen.stream().map(each -> {
            HostTasks.Watched asked = tasks.watched(deployments.byId(each.deployment()).orElseThrow(), on);
            return new HostDoubt.Candidate(each.deployment(), !asked.installed().isEmpty() || !asked.checks().isEmpty(), each.differing().isEmpty() && each.failing().isEmpty());
        }).toList()).ifPresent(deployment -> {
            DeploymentMapper.DeploymentRow row = deployments.byId(deployment).orElseThrow();
            deployments.endDoubt(place, host);
            deployments.openInterval(host, environments.placeById(place).componentId(), row.versionId(), deployment, around.clock().now());
            tellWhere(place, environments.hostName(host), Optional.of("found what is there"), "its files and checks are those of deployment " + deployment);
        });
    }

    private void tellWhere(long place, String host, Optional<String> what, String why) {
        what.ifPresent(words -> {
            Environments.Place where = environments.placeById(place);
            around.audit().record(AuditTrail.Entry.of(host, words, where.component()).in(where.environment()).because(why));
            telling.tell("whereabouts", where.component());
        });
    }

    private static String sentence(Map<String, String> differing) {
        return differing.entrySet().stream().map(each -> each.getKey() + (each.getValue().isEmpty() ? " is not there"
                : " has other bytes, sha256 " + each.getValue())).sorted().collect(Collectors.joining("; "));
    }

    private static String shortened(String text, int most) {
        return text.length() > most ? text.substring(0, most - 1) + "…" : text;
    }
}
