package dev.paseo.service.host;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostOutcome;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** The work of deployments: on hosts, and once for a place. */
@Component
class HostWork implements WorkOwner {

    private final Places places;
    private final Deployments deployments;
    private final Environments environments;
    private final HostTasks tasks;
    private final TestReports reports;

    HostWork(Places places, Deployments deployments, Environments environments, HostTasks tasks, TestReports reports) {
        this.places = places;
        this.deployments = deployments;
        this.environments = environments;
        this.tasks = tasks;
        this.reports = reports;
    }

    @Override
    public Set<Assignment.Kind> kinds() {
        return Stream.of(HostTask.values()).map(task -> Assignment.Kind.valueOf(task.name()))
                .collect(Collectors.toSet());
    }

    private Deployment deployment(Work work) {
        return deployments.get(Objects.requireNonNull(work.deploymentId()));
    }

    private HostOutcome tested(Deployment row) {
        return reports.ended(row, tasks.recipe(row));
    }

    /** The host's name; empty for what is done once for the place. */
    private String host(Work work) {
        return HostTask.valueOf(work.kind()).ofPlace() ? ""
                : environments.hostName(Objects.requireNonNull(work.hostId()));
    }

    private Deployments.Brief brief(Work work) {
        return deployments.brief(Objects.requireNonNull(work.deploymentId()));
    }

    @Override
    public Held lock(Work work) {
        long place = brief(work).placeId();
        places.lock(place);
        return new Held() {
            @Override
            public boolean taken(String agent) {
                return brief(work).status().active() || brief(work).status() == DeploymentStatus.LIVE;
            }

            @Override
            public void ended(Lease.Outcome outcome, String reason, boolean touched) {
                HostOutcome end = switch (outcome) {
                    case PASSED -> HostTask.valueOf(work.kind()) == HostTask.TEST ? tested(deployment(work))
                            : new HostOutcome.Done();
                    case FAILED -> new HostOutcome.Failed(reason, touched);
                    case STOPPED -> new HostOutcome.Failed("stopped", touched);
                    case LOST -> new HostOutcome.Failed("lost: " + reason, true);
                };
                places.change(place,
                        now -> Optional
                                .of(new PlaceEvent.HostReported(Objects.requireNonNull(work.deploymentId()), host(work),
                                        HostTask.valueOf(work.kind()), end)));
            }
        };
    }

    @Override
    public Assignment assignment(Work work) {
        return tasks.assignment(work, deployment(work));
    }

    @Override
    public boolean reaches(Work work, String digest) {
        return tasks.reaches(work, deployment(work), digest);
    }

    @Override
    public StageFiles files() {
        return reports;
    }
}
