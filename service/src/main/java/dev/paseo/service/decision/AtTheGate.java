package dev.paseo.service.decision;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import java.util.function.BiConsumer;
import org.springframework.stereotype.Component;

/** A word about a deployment that waits at its gate. */
@Component
class AtTheGate {

    private final Deployments deployments;
    private final Places places;
    private final Gates gates;

    AtTheGate(Deployments deployments, Places places, Gates gates) {
        this.deployments = deployments;
        this.places = places;
        this.gates = gates;
    }

    Evaluation evaluation(Gates.AtGate at) {
        return gates.evaluate(at);
    }

    /** In a transaction, with the place locked, about a deployment that waits; its gate is judged again afterwards. */
    void about(long id, BiConsumer<Gates.AtGate, AuditTrail.Entry> word, String who, String what) {
        Deployment row = deployments.get(id);
        places.learn(row.placeId());
        places.change(row.placeId(), place -> {
            Deployment now = deployments.get(id);
            if (now.status() != DeploymentStatus.WAITING) {
                throw Refusal
                        .conflict("deployment " + id + " no longer waits for a decision: it is " + Word.of(now.status())
                                + Optional.ofNullable(now.reason()).map(why -> " (" + why + ")").orElse(""));
            }
            Gates.AtGate at = places.atGate(place, now);
            word.accept(at, AuditTrail.Entry.of(who, what, place.component() + " " + at.version().number())
                    .in(place.environment()).with("deployment", Long.toString(id)));
            return Optional.empty();
        });
    }
}
