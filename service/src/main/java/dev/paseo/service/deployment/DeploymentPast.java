package dev.paseo.service.deployment;

import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.place.Deployment;
import java.util.List;
import org.springframework.stereotype.Component;

/** What a deployment came from, and what agents have done for it. */
@Component
class DeploymentPast {

    /** @param walk where its version has been */
    record Happened(List<StepLog.HostTaskView> tasks, List<Causes.Link> causes, List<Passages.Walked> walk) {}

    private final StepLog steps;
    private final Causes causes;
    private final Passages passages;

    DeploymentPast(StepLog steps, Causes causes, Passages passages) {
        this.steps = steps;
        this.causes = causes;
        this.passages = passages;
    }

    Happened of(Deployment row) {
        return new Happened(steps.ofDeployment(row.id()), causes.chain(row.causeId()),
                passages.walked(row.versionId()));
    }
}
