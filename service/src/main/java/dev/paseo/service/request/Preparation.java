package dev.paseo.service.request;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.NoWayBack;
import dev.paseo.core.secret.Lack;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Planner;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a version needs to be deployed somewhere at all, and the plan with which it is asked for. */
@Component
class Preparation {

    private final Environments environments;
    private final Secrets secrets;
    private final Planner planner;
    private final HostContents contents;
    private final Versions versions;

    Preparation(Environments environments, Secrets secrets, Planner planner, HostContents contents,
            Versions versions) {
        this.environments = environments;
        this.secrets = secrets;
        this.planner = planner;
        this.contents = contents;
        this.versions = versions;
    }

    /** Refuses, in a sentence, what could not be deployed there whatever anybody decides. */
    void require(Place place, Versions.Version version) {
        if (place.retired().isPresent()) {
            throw Refusal.conflict(
                    place.component() + " in " + place.environment() + " is retired: nothing is deployed there");
        }
        if (version.blocked()) {
            throw Refusal.conflict(version.component() + " " + version.number() + " is blocked");
        }
        List<Lack> lacks = secrets.lacks(recipe(version).secrets(), place.componentId(), place.environmentId());
        if (!lacks.isEmpty()) {
            throw Refusal.conflict(
                    "The recipe of " + version.component() + " " + version.number() + " uses what it may not have: "
                            + Lack.sentences(lacks, place.component(), Optional.of(place.environment())));
        }
        planner.reasonAgainst(place, version).ifPresent(why -> {
            throw Refusal.conflict(version.component() + " " + version.number() + " cannot be deployed to "
                    + place.environment() + ": " + why);
        });
        environments.hosts(place.id()).stream()
                .flatMap(host -> contents.lacks(place, version, host.name(), place.settingsRevision()).stream())
                .findFirst()
                .ifPresent(why -> {
                    throw Refusal.conflict(why);
                });
    }

    /** What is missing for it to be deployed there, as a sentence. */
    Optional<String> lacking(Place place, Versions.Version version) {
        try {
            recipe(version);
            require(place, version);
            return Optional.empty();
        } catch (Refusal missing) {
            return Optional.of(String.valueOf(missing.getMessage()));
        }
    }

    static Recipe recipe(Versions.Version version) {
        return version.recipe().orElseThrow(() -> Refusal.conflict(version.component() + " " + version.number()
                + " has no deployment in its pipeline file: nothing says how to deploy it"));
    }

    /** As it is asked for: not begun, and planned as things are now. */
    DeploymentState planned(long id, Place place, Wanted wanted) {
        Versions.Version version = wanted.version();
        Recipe recipe = recipe(version);
        boolean takesOver = environments.of(place).rules().takesOver();
        Optional<Long> bar = versions.noWayBack(version).map(NoWayBack::order);
        DeploymentState asked = new DeploymentState(id, version.number(), version.line(), version.order(),
                wanted.kind(), wanted.person().isEmpty(),
                DeploymentStatus.WAITING, List.of(), DeploymentState.OnFailure.valueOf(recipe.onFailure().name()),
                recipe.parts().removal().isEmpty() ? DeploymentState.WayBack.NONE : DeploymentState.WayBack.REMOVAL,
                Optional.empty(), null,
                new DeploymentState.Terms(wanted.emergency().isPresent(), bar, takesOver,
                        recipe.eachHost().isEmpty() ? Optional.of(true) : Optional.empty()));
        return planner.plan(asked, place, place.liveSide(), version);
    }
}
