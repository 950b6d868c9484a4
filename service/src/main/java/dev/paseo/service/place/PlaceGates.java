package dev.paseo.service.place;

import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.version.Versions;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** The gates before places, for all who ask: how something stands there, or would. */
@Component
public class PlaceGates {

    private final Gates gates;
    private final AtGates atGates;
    private final AuthorsKnown authors;

    PlaceGates(Gates gates, AtGates atGates, AuthorsKnown authors) {
        this.gates = gates;
        this.atGates = atGates;
        this.authors = authors;
    }

    public Gates.AtGate atGate(Place place, Deployment row) {
        return atGates.of(place, row);
    }

    /** @throws Gates.AuthorsUnknown where git must be asked first, which happens outside transactions */
    public Evaluation evaluate(Gates.AtGate at) {
        return gates.evaluate(at);
    }

    /** What an approval would approve now. */
    public String digest(Gates.AtGate at) {
        return gates.digest(at);
    }

    /** Asks git, outside the transaction, who wrote what is proposed there. */
    public void learn(long place) {
        authors.learn(place);
    }

    /** The same for a version that is about to be requested. */
    public void learn(Place place, Versions.Version version) {
        authors.learn(place, version);
    }

    /**
     * Does what needs the authors of a version known; where what is live moved on in between, they are learned again.
     *
     * @throws dev.paseo.service.problem.Refusal unavailable where what is live keeps changing
     */
    public <T> T knowing(long place, Versions.Version version, Supplier<T> what) {
        return authors.knowing(place, version, what);
    }

    /** What a promotion of this version there would deploy now. */
    public Subject subject(Place place, Versions.Version version) {
        return gates.subject(atGates.proposed(place, version, ""));
    }

    /** What its gate would say now, were this version promoted there by this person. */
    public Evaluation prospect(Place place, Versions.Version version, String requester) {
        return authors.knowing(place.id(), version, () -> gates.evaluate(atGates.proposed(place, version, requester)));
    }
}
