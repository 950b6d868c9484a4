package dev.paseo.service.deployment;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.text.Word;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** A deployment at the gate before its environment, as one reader sees it. */
@Component
class DeploymentGates {

    /**
     * As it stands there; what each part means is told with the whole deployment.
     *
     * @param place   that it stands before
     * @param version the version that stands there
     */
    record AtItsGate(Place place, Versions.Version version, List<GateViews.CriterionView> criteria, String subject,
            Optional<String> mayNot, Optional<String> mayNotTick, boolean commentRequired,
            List<GateViews.GateDecisionView> decisions, List<GateViews.ListView> checklists) {}

    private final PlaceGates gates;
    private final GateViews views;
    private final Environments environments;

    DeploymentGates(PlaceGates gates, GateViews views, Environments environments) {
        this.gates = gates;
        this.views = views;
        this.environments = environments;
    }

    AtItsGate of(Deployment row, String reader) {
        Place place = environments.placeById(row.placeId());
        Gates.AtGate at = gates.atGate(place, row);
        Optional<Evaluation> gate = Optional.of(row).filter(each -> each.status() == DeploymentStatus.WAITING)
                .map(each -> gates.knowing(place.id(), at.version(), () -> gates.evaluate(now(each))));
        String subject = Optional.ofNullable(row.subject()).or(() -> gate.map(Evaluation::digest))
                .orElseGet(() -> gates.digest(at));
        Optional<String> over = Optional
                .of("deployment " + row.id() + " does not wait for a decision: it is " + Word.of(row.status()));
        return new AtItsGate(place, at.version(),
                GateViews.criteria(gate.map(Evaluation::verdict).orElse(Verdict.OPEN)), subject,
                gate.map(each -> each.refusal(reader)).orElse(over),
                gate.map(each -> each.tickRefusal(reader)).orElse(over),
                gate.filter(Evaluation::needsComment).isPresent(), views.decisions(at.standing(), subject),
                views.lists(at));
    }

    private Gates.AtGate now(Deployment row) {
        return gates.atGate(environments.placeById(row.placeId()), row);
    }
}
