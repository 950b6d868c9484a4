package dev.paseo.service.deployment;

import dev.paseo.service.cause.Causes;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.deployment.VersionWalks.StopView;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Versions as they are shown. */
@Component
class VersionViews {

    /**
     * A version, whole.
     *
     * @param names  what else it is called: tags on its commit
     * @param blocked by whom and why nobody deploys it any more
     * @param origin   how it arrived, where no run sealed it
     * @param evidence of a version that arrived: what came with it, and what the runs that its arrival started reported
     */
    record VersionView(String component, String number, List<String> names, Optional<String> origin, String branch,
            boolean trusted, Optional<String> commit, Optional<String> commitSummary,
            Optional<String> commitAuthor, Optional<Long> run, String digest, Optional<String> bundle, Instant sealedAt,
            List<Versions.Artifact> artifacts, Map<String, Integer> recipe, List<StopView> walk,
            List<DeploymentSummary> deployments, List<Causes.Link> causes, List<EvidenceViews.KnownView> evidence,
            Optional<String> blocked) {}

    private final Versions versions;
    private final VersionWalks walks;
    private final VersionOrigins origins;
    private final DeploymentSummaries deployments;
    private final Holds holds;

    VersionViews(Versions versions, VersionWalks walks, VersionOrigins origins, DeploymentSummaries deployments,
            Holds holds) {
        this.versions = versions;
        this.walks = walks;
        this.origins = origins;
        this.deployments = deployments;
        this.holds = holds;
    }

    VersionView whole(Versions.Version version) {
        Optional<Mirror.Commit> commit = origins.commit(version);
        return new VersionView(version.component(), version.number(), versions.names(version.id()), version.origin(),
                version.branch(), version.trusted(), version.commit(), commit.map(Mirror.Commit::summary),
                commit.map(Mirror.Commit::author), version.runNumber(), version.digest(), version.bundle(),
                version.sealedAt(),
                versions.artifacts(version.id()),
                version.recipe().map(recipe -> Map.of("steps", recipe.parts().onEachHost().size(),
                        "checks", recipe.eachHost().size())).orElse(Map.of()),
                walks.of(version), deployments.ofVersion(version.id()), origins.causes(version),
                origins.evidence(version),
                holds.blocked(version.id()));
    }
}
