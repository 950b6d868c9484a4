package dev.paseo.service.gate;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateDecision;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Needs.What;
import dev.paseo.core.gate.Needs;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Tick;
import dev.paseo.service.database.Json;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Gathers the facts that the criteria of a gate ask for, and no others. */
@Component
class FactsOfGates {

    private final GateDecisionMapper mapper;
    private final PeopleAtGates people;
    private final FactsOfVersions versions;
    private final Json json;

    FactsOfGates(GateDecisionMapper mapper, PeopleAtGates people, FactsOfVersions versions, Json json) {
        this.mapper = mapper;
        this.people = people;
        this.versions = versions;
        this.json = json;
    }

    GateFacts load(Gates.AtGate at, List<Criterion> criteria, Subject subject, GateFacts.Around around) {
        Needs needs = Needs.of(criteria);
        Authorship.Behind behind = needs.has(What.AUTHORS) ? people.behind(at)
                : new Authorship.Behind(Set.of(), Set.of());
        return new GateFacts(subject, at.requester(), behind.accounts(), behind.unknown(),
                needs.people().isEmpty() ? new GateFacts.People(Map.of(), Map.of()) : people.people(at, needs.people()),
                versions.of(at, needs), at.requestedAt(), said(at, needs), around);
    }

    private GateFacts.Said said(Gates.AtGate at, Needs needs) {
        Map<String, GateFacts.Answer> answers = new HashMap<>();
        if (needs.has(What.ANSWERS) && !at.standing().leaves()) {
            mapper.answers(at.standing().deployment()).forEach(row -> answers.put(row.name(),
                    new GateFacts.Answer(Optional.ofNullable(row.yes()), row.words(), row.askedAt())));
        }
        return new GateFacts.Said(decisions(at.standing()),
                needs.has(What.TICKS) ? ticks(at.standing()) : List.of(), answers);
    }

    private List<Tick> ticks(Gates.Standing standing) {
        return mapper.ticks(standing.deployment(), standing.passage()).stream()
                .map(row -> new Tick(row.item(), row.by(), Tick.Outcome.valueOf(row.outcome()), row.note(), row.at()))
                .toList();
    }

    List<GateDecision> decisions(Gates.Standing standing) {
        return mapper.of(standing.deployment(), standing.passage()).stream()
                .map(row -> new GateDecision(row.by(), Optional.ofNullable(row.inPlaceOf()), row.yes(), row.comment(),
                        row.subject(),
                        Optional.ofNullable(row.parts()).map(parts -> json.read(parts, Subject.class)),
                        row.at()))
                .toList();
    }
}
