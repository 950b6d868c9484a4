package dev.paseo.service.deployment;

import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import java.util.List;
import org.springframework.stereotype.Component;

/** What a deployment came from, and what agents have done for it. */
@Component
class DeploymentPast {

    /** @param walk where its version has been */
    record Happened(List<StepLog.HostTaskView> tasks, List<Causes.Link> causes, List<Environments.Stay> walk) {}

    private final StepLog steps;
    private final Causes causes;
    private final Environments environments;

    DeploymentPast(StepLog steps, Causes causes, Environments environments) {
        this.steps = steps;
        this.causes = causes;
        this.environments = environments;
    }

    Happened of(Deployment row) {
        return new Happened(steps.ofDeployment(row.id()), causes.chain(row.causeId()),
                environments.stays(row.versionId()));
    }
}
