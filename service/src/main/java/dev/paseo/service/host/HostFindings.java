package dev.paseo.service.host;

import dev.paseo.api.agent.Watch;
import dev.paseo.core.deployment.HostDoubt;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What an agent found on a host of which nobody knew what it has. */
@Component
class HostFindings {

    private final Environments environments;
    private final HostTasks tasks;
    private final Deployments deployments;
    private final Places places;
    private final HostTrail trail;

    HostFindings(Environments environments, HostTasks tasks, Deployments deployments, Places places,
            HostTrail trail) {
        this.environments = environments;
        this.tasks = tasks;
        this.deployments = deployments;
        this.places = places;
        this.trail = trail;
    }

    boolean unknown(Watch.Seen seen) {
        return deployments.isUnknown(seen.place(), seen.host());
    }

    /** All that was seen on one host. */
    void found(List<Watch.Seen> seen) {
        long place = seen.getFirst().place();
        long host = seen.getFirst().host();
        PlaceHost on = environments.host(place, host).orElseThrow();
        HostDoubt.settled(seen.stream().map(each -> {
            HostTasks.Watched asked = tasks.watched(deployments.get(each.deployment()), on);
            return new HostDoubt.Candidate(each.deployment(), !asked.installed().isEmpty() || !asked.checks().isEmpty(),
                    each.differing().isEmpty() && each.failing().isEmpty());
        }).toList()).ifPresent(deployment -> {
            if (places.change(place, now -> Optional.of(new PlaceEvent.Found(on.name(), deployment)))
                    .isEmpty()) {
                trail.record(place, on.name(), "found what is there",
                        "its files and checks are those of deployment " + deployment);
            }
        });
    }
}
