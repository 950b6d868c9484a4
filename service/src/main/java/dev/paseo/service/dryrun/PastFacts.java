package dev.paseo.service.dryrun;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.dryrun.DryRunMapper.PastRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** What a gate would have been judged on at a moment that is past, as far as that is known. */
@Component
class PastFacts {

    private static final Logger LOG = LoggerFactory.getLogger(PastFacts.class);

    /**
     * One that is judged.
     *
     * @param onward  at the gate onward
     * @param follows what would be followed
     */
    record Judged(boolean onward, PastRow row, Gates.AtGate at, List<Criterion> criteria,
            Optional<Criterion.Follows> follows) {}

    private final DryRunMapper mapper;
    private final Environments environments;
    private final Gates gates;
    private final Authorship authorship;
    private final Stretches stretches;

    PastFacts(DryRunMapper mapper, Environments environments, Gates gates, Authorship authorship,
            Stretches stretches) {
        this.mapper = mapper;
        this.environments = environments;
        this.gates = gates;
        this.authorship = authorship;
        this.stretches = stretches;
    }

    /** Empty where it cannot be learned who wrote what was proposed. */
    Optional<GateFacts> facts(Judged judged) {
        PastRow row = judged.row();
        if (judged.criteria().stream().anyMatch(criterion -> criterion instanceof Criterion.Approvals approvals
                && approvals.notBy().contains(Criterion.Exclusion.AUTHORS))) {
            learn(judged.at());
        }
        try {
            GateFacts known = gates.known(judged.at(), judged.criteria(), approved(row, judged.at()));
            return Optional.of(known.asOf(row.at(), Set.copyOf(mapper.passed(row.versionId(), row.at())),
                    stretch(judged)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }

    /** Git is asked for what is not known yet; a commit that is no longer there stays unknown. */
    private void learn(Gates.AtGate at) {
        Versions.Version version = at.version();
        try {
            version.commit().ifPresent(commit -> authorship.learn(version.componentId(),
                    at.live().flatMap(Versions.Version::commit), commit));
        } catch (RuntimeException failed) {
            LOG.debug("the authors of {} {} stay unknown", version.component(), version.number(), failed);
        }
    }

    /** What was approved in the end: as whoever approved it saw it. */
    private Subject approved(PastRow row, Gates.AtGate at) {
        return gates.decisions(at.standing()).stream()
                .filter(decision -> row.subject() == null || decision.digest().equals(row.subject()))
                .flatMap(decision -> decision.subject().stream()).reduce((earlier, later) -> later)
                .orElse(new Subject(at.version().digest(), 0, 0, 0, 0));
    }

    private GateFacts.Stretch stretch(Judged judged) {
        if (judged.criteria().stream().noneMatch(Criterion.LiveFor.class::isInstance)) {
            return GateFacts.Stretch.NOT_AT_ALL;
        }
        PastRow row = judged.row();
        if (judged.onward()) {
            return stretch(judged.at().place(), row);
        }
        List<GateFacts.Stretch> all = judged.follows().map(Criterion.Follows::environments).orElse(List.of()).stream()
                .flatMap(name -> environments.find(row.component(), name).stream()).map(place -> stretch(place, row))
                .toList();
        return GateFacts.Stretch.counting(all, judged.follows().filter(Criterion.Follows::any).isPresent(), row.at());
    }

    private GateFacts.Stretch stretch(Environments.Place place, PastRow row) {
        List<GateFacts.Lived> lived = mapper.lived(place.id(), row.versionId()).stream()
                .map(each -> new GateFacts.Lived(each.fromAt(), Optional.ofNullable(each.toAt()))).toList();
        return stretches.of(place, row.versionId()).asOf(lived, row.at());
    }
}
