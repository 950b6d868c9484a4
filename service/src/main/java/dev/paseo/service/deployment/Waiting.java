package dev.paseo.service.deployment;

import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Gates;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** How a waiting deployment stands, for one reader. */
@Component
public class Waiting {

    /** The criterion that holds it most, in a few words, and whether the reader may decide it. */
    public record Stand(Optional<String> gate, boolean forReader) {}

    private final DeploymentMapper mapper;
    private final Places places;
    private final Gates gates;
    private final Environments environments;

    Waiting(DeploymentMapper mapper, Places places, Gates gates, Environments environments) {
        this.mapper = mapper;
        this.places = places;
        this.gates = gates;
        this.environments = environments;
    }

    public Stand stand(long deployment, String reader) {
        DeploymentRow row = mapper.byId(deployment).orElseThrow();
        places.learn(row.placeId());
        Gates.AtGate at = places.atGate(environments.placeById(row.placeId()), row);
        Verdict verdict = gates.judge(at);
        Optional<String> holds = verdict.judgements().stream().filter(judgement -> judgement.state() != Judgement.State.MET)
                .map(Judgement::name).findFirst();
        boolean asks = verdict.judgements().stream().anyMatch(judgement -> judgement.state() == Judgement.State.ASKED);
        return new Stand(holds, asks && gates.refusal(at, reader).isEmpty());
    }
}
