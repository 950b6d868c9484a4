package dev.paseo.service.deployment;

import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.version.Versions;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a deployment changes where it goes. */
@Component
class DeploymentComparisons {

    private final Deployments deployments;
    private final Environments environments;
    private final Versions versions;
    private final HostContents contents;
    private final Comparisons comparisons;
    private final Json json;

    DeploymentComparisons(Deployments deployments, Environments environments, Versions versions,
            HostContents contents, Comparisons comparisons, Json json) {
        this.deployments = deployments;
        this.environments = environments;
        this.versions = versions;
        this.contents = contents;
        this.comparisons = comparisons;
        this.json = json;
    }

    /** Against what it replaces or, before it begins, what is live. */
    Comparisons.ComparisonView of(Deployment row) {
        return of(row, environments.placeById(row.placeId()), versions.byId(row.versionId()));
    }

    /** The same, of its place and its version. */
    Comparisons.ComparisonView of(Deployment row, Place place, Versions.Version version) {
        Optional<Deployment> against = (row.startedAt() == null ? place.liveDeployment()
                : Optional.ofNullable(row.replacesId())).flatMap(deployments::find);
        Optional<Versions.Version> live = against.map(other -> versions.byId(other.versionId()));
        long settings = row.startedAt() == null ? place.settingsRevision() : row.settingsRevision();
        Map<String, Long> secrets = row.startedAt() == null ? contents.secrets(place, version)
                : json.read(row.secretRevisions(), HostContents.REVISIONS);
        return comparisons.of(live, version,
                against.map(other -> new Comparisons.Set(
                        environments.settings(place.id(), other.settingsRevision()),
                        json.read(other.secretRevisions(), HostContents.REVISIONS))),
                Optional.of(new Comparisons.Set(environments.settings(place.id(), settings), secrets)));
    }
}
