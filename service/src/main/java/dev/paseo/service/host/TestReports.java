package dev.paseo.service.host;

import dev.paseo.core.deployment.HostOutcome;
import dev.paseo.core.deployment.Movement;
import dev.paseo.core.run.OnFailures;
import dev.paseo.core.run.StageOutcome;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import java.io.OutputStream;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The reports that tests of what is live leave; nothing else goes from a deployment into the store. */
@Component
class TestReports implements WorkOwner.StageFiles {

    private final Deployments deployments;
    private final Environments environments;
    private final Evidence evidence;

    TestReports(Deployments deployments, Environments environments, Evidence evidence) {
        this.deployments = deployments;
        this.environments = environments;
        this.evidence = evidence;
    }

    @Override
    public void report(Work work, String kind, ByteStore.StoredBytes kept) {
        if (!work.kind().equals("TEST")) {
            throw nothing();
        }
        Deployment row = deployments.get(Objects.requireNonNull(work.deploymentId()));
        Environments.Place place = environments.placeById(row.placeId());
        String test = deployments.state(row).course().now().flatMap(Movement::name).orElse("");
        evidence.takeOfDeployment(
                new Evidence.Tested(row.id(), row.versionId(), place.environmentId(), place.environment(), test), kind,
                kept.digest());
    }

    /** How a test of what is live ended whose steps ended well: by its reports too. */
    HostOutcome ended(Deployment row, Recipe recipe) {
        Optional<String> test = deployments.state(row).course().now().flatMap(Movement::name);
        OnFailures rule = test.map(recipe.afterwards().tests()::get).map(Recipe.Test::onFailures)
                .orElse(OnFailures.PASS);
        return rule.outcome(test.map(name -> evidence.failedTests(row.id(), name))
                .orElse(0L)) instanceof StageOutcome.Failed(String reason)
                        ? new HostOutcome.Failed(reason, false) : new HostOutcome.Done();
    }

    private static Refusal nothing() {
        return Refusal.conflict("A deployment keeps no files; it uses those of its version");
    }

    @Override
    public void source(Work work, OutputStream out) {
        throw nothing();
    }

    @Override
    public void output(Work work, String name, String fileName, ByteStore.StoredBytes kept) {
        throw nothing();
    }

    @Override
    public void files(Work work, ByteStore.StoredBytes kept) {
        throw nothing();
    }

    @Override
    public Optional<WorkOwner.Reused> reused(Work work, String key) {
        throw nothing();
    }

    @Override
    public void reuse(Work work, String key, ByteStore.StoredBytes kept) {
        throw nothing();
    }
}
