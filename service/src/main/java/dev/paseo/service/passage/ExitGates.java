package dev.paseo.service.passage;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The gate of an environment onward, for one version that is live there. */
@Component
class ExitGates {

    private final Environments environments;
    private final Versions versions;
    private final Gates gates;
    private final Authorship authorship;

    ExitGates(Environments environments, Versions versions, Gates gates, Authorship authorship) {
        this.environments = environments;
        this.versions = versions;
        this.gates = gates;
        this.authorship = authorship;
    }

    /** What stands there. */
    Gates.AtGate at(PassageRow row) {
        Versions.Version version = versions.byId(row.versionId());
        Environments.Place place = environments.place(version.component(), row.environment());
        return new Gates.AtGate(Gates.Standing.ofPassage(row.id()), place,
                environments.of(place), version,
                Optional.ofNullable(row.beforeId()).map(versions::byId), "",
                Optional.ofNullable(row.settledAt()).orElse(row.openedAt()), Kind.PROMOTION, Optional.empty());
    }

    /** How its gate onward stands; authors are asked of git where they are not known. */
    Evaluation evaluation(PassageRow row) {
        learn(row);
        return gates.evaluate(at(row));
    }

    /** How it stands, by what is known: in the transaction under way, nobody is asked. */
    Evaluation judged(Gates.AtGate at) {
        return gates.evaluate(at);
    }

    /** Asks git who wrote what would leave, where that is not known. */
    void learn(PassageRow row) {
        Gates.AtGate at = at(row);
        at.version().commit().ifPresent(commit -> authorship.learn(at.version().componentId(),
                at.live().flatMap(Versions.Version::commit), commit));
    }

    /** Empty where git must be asked first. */
    Optional<Evaluation> known(PassageRow row) {
        try {
            return Optional.of(gates.evaluate(at(row)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }
}
