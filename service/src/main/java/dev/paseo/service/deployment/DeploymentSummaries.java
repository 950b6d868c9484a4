package dev.paseo.service.deployment;

import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Deployments as they stand in lists. */
@Component
public class DeploymentSummaries {

    private final Deployments deployments;
    private final Absences absences;

    DeploymentSummaries(Deployments deployments, Absences absences) {
        this.deployments = deployments;
        this.absences = absences;
    }

    /** @throws dev.paseo.service.problem.Refusal not found where there is none of this number */
    public Deployment row(long id) {
        return deployments.get(id);
    }

    /** @throws dev.paseo.service.problem.Refusal not found where there is none of this number */
    public DeploymentSummary of(long id) {
        return of(deployments.get(id));
    }

    List<DeploymentSummary> ofVersion(long version) {
        return deployments.ofVersion(version).stream().map(this::of).toList();
    }

    public DeploymentSummary of(Deployment row) {
        return new DeploymentSummary(row.id(), row.component(), row.version(), row.environment(),
                row.kind(), row.emergencyReason() != null, row.status(),
                Optional.ofNullable(row.requestedBy()), Optional.ofNullable(row.reason()), row.requestedAt(),
                Optional.ofNullable(row.startedAt()),
                Optional.ofNullable(row.liveAt()), Optional.ofNullable(row.endedAt()),
                absences.secondsWithin(row.startedAt(), row.liveAt() == null ? row.endedAt() : row.liveAt()));
    }
}
