package dev.paseo.service.deployment;

import dev.paseo.core.deployment.Cautions;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.deployment.PlaceViews.MovementView;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.place.Places;
import dev.paseo.service.place.Planner;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What would happen if a version were deployed somewhere, before anybody asks for it. */
@Component
class PlacePlans {

    /**
     * What would happen.
     *
     * @param reason    why it cannot be deployed there
     * @param cautions what whoever deploys should know and would go past: a hold, a step back in the line
     * @param gate     what would stand before it, as it is judged now
     * @param onward   the environments that it goes on to by itself from there
     */
    record DeploymentPlanView(String version, List<MovementView> plan, Optional<String> reason, List<String> cautions,
            List<GateViews.CriterionView> gate, List<String> onward) {}

    private final Places places;
    private final PlaceGates gates;
    private final Planner planner;
    private final Holds holds;

    PlacePlans(Places places, PlaceGates gates, Planner planner, Holds holds) {
        this.places = places;
        this.gates = gates;
        this.planner = planner;
        this.holds = holds;
    }

    DeploymentPlanView plan(Place place, Versions.Version version, String requester) {
        Optional<String> reason = version.recipe().isEmpty() ? Optional.of("it has no deployment in its pipeline file")
                : planner.reasonAgainst(place, version);
        if (reason.isPresent()) {
            return new DeploymentPlanView(version.number(), List.of(), reason, List.of(), List.of(), List.of());
        }
        DeploymentState asked = new DeploymentState(0, version.number(), version.line(), version.order(),
                Kind.PROMOTION, false, DeploymentStatus.WAITING,
                List.<HostState>of(), DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.NONE, Optional.empty(),
                null, null);
        return new DeploymentPlanView(version.number(),
                PlaceViews.movements(planner.plan(asked, place, place.liveSide(), version)), Optional.empty(),
                cautions(place, version, Kind.PROMOTION),
                GateViews.criteria(gates.prospect(place, version, requester).verdict()),
                version.route().onward(place.environment()));
    }

    /** What somebody who deploys it there goes past. */
    List<String> cautions(Place place, Versions.Version version, Kind kind) {
        return Cautions.of(kind, place.component() + " in " + place.environment(), inLine(version),
                places.live(place).map(PlacePlans::inLine),
                holds.held(place).map(hold -> "by " + hold.by() + ": “" + hold.reason() + "”"));
    }

    private static Cautions.InLine inLine(Versions.Version version) {
        return new Cautions.InLine(version.number(), version.line(), version.order());
    }
}
