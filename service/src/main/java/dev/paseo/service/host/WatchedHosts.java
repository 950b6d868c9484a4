package dev.paseo.service.host;

import dev.paseo.api.agent.Watch;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.settings.Settings;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What agents are to keep an eye on. */
@Component
class WatchedHosts {

    private final HostReportMapper mapper;
    private final Deployments deployments;
    private final Environments environments;
    private final HostTasks tasks;
    private final Settings settings;

    WatchedHosts(HostReportMapper mapper, Deployments deployments, Environments environments, HostTasks tasks,
            Settings settings) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.environments = environments;
        this.tasks = tasks;
        this.settings = settings;
    }

    Watch.Watched watched(long agent, Optional<Long> host, Optional<String> renewal) {
        List<Watch.OnHost> hosts = mapper.watched(agent, host.orElse(null)).stream()
                .flatMap(row -> deployments.find(row.deploymentId()).stream().map(deployment -> {
                    PlaceHost on = environments.host(row.placeId(), row.hostId()).orElseThrow();
                    HostTasks.Watched watched = tasks.watched(deployment, on);
                    return new Watch.OnHost(row.placeId(), row.hostId(), row.deploymentId(), watched.installed(),
                            watched.checks(), watched.ssh());
                })).toList();
        return new Watch.Watched(hosts, (int) settings.watchEvery().toSeconds(), renewal);
    }
}
