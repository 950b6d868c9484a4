package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.version.Versions;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Judges the gates of what has not begun in a place, and keeps how each stands for the lists of what waits. */
@Component
class JudgedGates {

    /**
     * As things are now.
     *
     * @param evaluations of each whose authors are known, by the deployment's number
     * @param planned     the place with what is ahead planned anew
     */
    record Judged(Map<Long, Evaluation> evaluations, PlaceSnapshot planned) {
        Map<Long, Verdict> verdicts() {
            Map<Long, Verdict> verdicts = new LinkedHashMap<>();
            evaluations.forEach((deployment, gate) -> verdicts.put(deployment, gate.verdict()));
            return verdicts;
        }
    }

    private final Gates gates;
    private final WaitingGates waits;
    private final AtGates atGates;
    private final Planner planner;
    private final Versions versions;

    JudgedGates(Gates gates, WaitingGates waits, AtGates atGates, Planner planner, Versions versions) {
        this.gates = gates;
        this.waits = waits;
        this.atGates = atGates;
        this.planner = planner;
        this.versions = versions;
    }

    /** All that is ahead; empty where nothing is. */
    Optional<Judged> judge(LoadedPlace loaded) {
        Place place = loaded.place();
        PlaceSnapshot state = loaded.snapshot();
        Map<Long, Evaluation> evaluations = new LinkedHashMap<>();
        Map<Long, Versions.Version> ahead = new LinkedHashMap<>();
        for (Deployment row : loaded.rows().values()) {
            if (state.deployment(row.id()).filter(deployment -> deployment.status().ahead()).isPresent()) {
                ahead.put(row.id(), versions.byId(row.versionId()));
                evaluate(place, row).ifPresent(gate -> evaluations.put(row.id(), gate));
            }
        }
        return ahead.isEmpty() ? Optional.empty()
                : Optional.of(new Judged(evaluations, state.planned(deployment -> planner.plan(deployment, place,
                        place.liveSide(), ahead.get(deployment.id())))));
    }

    /** Empty where git must be asked first, which happens outside transactions; until then the gate counts as shut. */
    private Optional<Evaluation> evaluate(Place place, Deployment row) {
        try {
            return Optional.of(gates.evaluate(atGates.of(place, row)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }

    /** A plan that has come to a condition over facts goes on, or back, at once. */
    Optional<PlaceEvent> factsJudged(LoadedPlace kept) {
        return kept.snapshot().open().stream().filter(deployment -> deployment.factsAsked().isPresent()).findFirst()
                .map(deployment -> {
                    Judgement judged = gates.fact(atGates.of(kept.place(), kept.row(deployment.id())),
                            deployment.factsAsked().orElseThrow());
                    return new PlaceEvent.FactsJudged(deployment.id(), judged.state() == Judgement.State.MET,
                            judged.sentence());
                });
    }

    /** Lists of what waits are read, not judged: how each stands is kept as it was judged. */
    void keepWaits(Place place, List<Deployment> rows, PlaceSnapshot after, Map<Long, Evaluation> evaluations) {
        rows.forEach(row -> after.deployment(row.id()).filter(deployment -> evaluations.containsKey(row.id()))
                .ifPresent(deployment -> {
                    if (deployment.status() == DeploymentStatus.WAITING) {
                        waits.keep(atGates.of(place, row), evaluations.get(row.id()));
                    } else {
                        waits.gone(Gates.Standing.ofDeployment(row.id()));
                    }
                }));
    }

    /** It does not wait any more. */
    void over(DeploymentState deployment) {
        waits.gone(Gates.Standing.ofDeployment(deployment.id()));
    }
}
