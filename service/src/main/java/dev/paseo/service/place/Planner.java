package dev.paseo.service.place;

import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Movement;
import dev.paseo.core.deployment.Plan;
import dev.paseo.core.deployment.Strategy;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Plans deployments as the place is now: its hosts, its sides, what they have. */
@Component
public class Planner {

    private final Environments environments;
    private final HostContents contents;

    Planner(Environments environments, HostContents contents) {
        this.environments = environments;
        this.contents = contents;
    }

    /** The same request with the plan that it would follow if it began now. */
    public DeploymentState plan(DeploymentState asked, Place place, Optional<String> liveSide,
            Versions.Version version) {
        Recipe recipe = version.recipe().orElseThrow();
        List<PlaceHost> hosts = environments.hosts(place.id());
        List<Plan.Host> taking = taking(place, hosts, version);
        Strategy strategy = Plan.fitting(strategy(recipe.strategy()), taking);
        List<Movement> plan = Plan.of(
                new Plan.Recipe(strategy, !recipe.parts().onceBefore().isEmpty(), !recipe.parts().onceAfter().isEmpty(),
                        !recipe.whole().isEmpty(), recipe.afterwards().keepChecking(),
                        List.copyOf(recipe.afterwards().tests().keySet())),
                taking, liveSide);
        Course.Sides sides = strategy.sided() ? new Course.Sides(Plan.idleSide(taking, liveSide), liveSide)
                : Course.Sides.NONE;
        return asked.planned(hosts.stream()
                .map(host -> host.maintenance().map(why -> HostState.away(host.name(), "in maintenance: " + why))
                        .orElseGet(() -> HostState.ahead(host.name())))
                .toList(), Course.of(plan, sides, Plan.mayFail(strategy, taking)));
    }

    private List<Plan.Host> taking(Place place, List<PlaceHost> hosts, Versions.Version version) {
        Map<String, HostContent> had = contents.had(place);
        Function<String, HostContent> now = contents.now(place, version);
        return hosts.stream().filter(host -> host.maintenance().isEmpty())
                .map(host -> Plan.Host.of(host.name(), host.side(), Optional.ofNullable(had.get(host.name())),
                        now.apply(host.name())))
                .toList();
    }

    static Strategy strategy(Recipe.Strategy said) {
        return switch (said.kind()) {
            case TOGETHER -> new Strategy.Together();
            case ROLLING -> new Strategy.Rolling(said.batch(), said.pause(), said.reversed(), said.mayFail());
            case BLUE_GREEN -> new Strategy.BlueGreen(said.oldSideStays());
            case CANARY -> new Strategy.Canary(
                    said.shares().stream()
                            .map(share -> new Strategy.Share(share.percent(), share.stay(), share.facts(),
                                    share.asked()))
                            .toList(),
                    said.oldSideStays());
        };
    }

    /** Why the version cannot be deployed to the place as it is; empty where it can. */
    public Optional<String> reasonAgainst(Place place, Versions.Version version) {
        List<PlaceHost> hosts = environments.hosts(place.id());
        if (hosts.isEmpty()) {
            return Optional.of(place.component() + " has no hosts in " + place.environment());
        }
        List<Plan.Host> taking = taking(place, hosts, version);
        if (taking.isEmpty()) {
            return Optional
                    .of("every host of " + place.component() + " in " + place.environment() + " is in maintenance");
        }
        return Plan.reasonAgainst(strategy(version.recipe().orElseThrow().strategy()), taking);
    }
}
