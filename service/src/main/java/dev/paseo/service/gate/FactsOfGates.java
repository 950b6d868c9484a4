package dev.paseo.service.gate;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateDecision;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Tick;
import dev.paseo.language.condition.Condition;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Gathers the facts that the criteria of a gate ask for, and no others. */
@Component
class FactsOfGates {

    private final GateDecisionMapper mapper;
    private final Environments environments;
    private final Accounts accounts;
    private final Authorship authorship;
    private final Knowledge knowledge;
    private Optional<Over> over = Optional.empty();

    private record Over(List<String> environments, Condition condition) {}

    /** What is known of versions. */
    @Component
    record Knowledge(Evidence evidence, Stretches stretches, Versions versions, ServiceClock clock, Json json) {}

    FactsOfGates(GateDecisionMapper mapper, Environments environments, Accounts accounts, Authorship authorship,
            Knowledge knowledge) {
        this.mapper = mapper;
        this.environments = environments;
        this.accounts = accounts;
        this.authorship = authorship;
        this.knowledge = knowledge;
    }

    GateFacts load(Gates.AtGate at, List<Criterion> criteria, Subject subject, GateFacts.Around around) {
        boolean people = criteria.stream().anyMatch(
                criterion -> criterion instanceof Criterion.Approvals || criterion instanceof Criterion.Checklist);
        boolean authors = criteria.stream().anyMatch(criterion -> criterion instanceof Criterion.Approvals approvals
                && approvals.notBy().contains(Criterion.Exclusion.AUTHORS));
        Authorship.Behind behind = authors ? behind(at) : new Authorship.Behind(Set.of(), Set.of());
        return new GateFacts(subject, at.requester(), behind.accounts(), behind.unknown(),
                people ? people(at, criteria) : new GateFacts.People(Map.of(), Map.of()),
                ofVersion(at, criteria), at.requestedAt(), said(at), around);
    }

    /** Those of all members where a set stands at the gate: nobody decides about what they wrote themselves. */
    private Authorship.Behind behind(Gates.AtGate at) {
        return at.set().stream().flatMap(set -> set.others().stream()).map(this::behindOne).reduce(behindOne(at),
                Authorship.Behind::and);
    }

    private Authorship.Behind behindOne(Gates.AtGate at) {
        Versions.Version version = at.version();
        return version.commit()
                .map(commit -> authorship
                        .behind(version.componentId(), at.live().flatMap(Versions.Version::commit), commit)
                        .orElseThrow(Gates.AuthorsUnknown::new))
                .orElseGet(() -> authorship.stated(version.id()));
    }

    private GateFacts.People people(Gates.AtGate at, List<Criterion> criteria) {
        Set<String> named = new HashSet<>();
        for (Criterion criterion : criteria) {
            if (criterion instanceof Criterion.Approvals approvals) {
                named.addAll(approvals.from());
                approvals.escalation().ifPresent(more -> named.add(more.to()));
            } else if (criterion instanceof Criterion.Checklist checklist) {
                named.addAll(checklist.from());
            }
        }
        Map<String, Set<String>> members = new HashMap<>();
        named.forEach(name -> members.put(name, accounts.meant(name)));
        Map<String, Set<String>> standIns = new HashMap<>();
        mapper.standIns(at.standing().deployment(), knowledge.clock().now())
                .forEach(row -> standIns.computeIfAbsent(row.deputy(), name -> new HashSet<>()).add(row.principal()));
        return new GateFacts.People(members, standIns);
    }

    private GateFacts.OfVersion ofVersion(Gates.AtGate at, List<Criterion> criteria) {
        Versions.Version version = at.version();
        boolean stretches = criteria.stream().anyMatch(Criterion.LiveFor.class::isInstance);
        List<String> conditions = criteria.stream().filter(Criterion.Fact.class::isInstance)
                .map(criterion -> ((Criterion.Fact) criterion).condition()).toList();
        return new GateFacts.OfVersion(environments.passed(version.id()), version.branch(), version.trusted(),
                knowledge.versions().names(version.id()),
                version.commit().isEmpty(), stretches ? stretch(at) : GateFacts.Stretch.NOT_AT_ALL,
                conditions.isEmpty() ? Map.of() : conditions(at, conditions));
    }

    /** Here at the gate onward; at the gate before in what is followed. */
    private GateFacts.Stretch stretch(Gates.AtGate at) {
        if (at.standing().leaves()) {
            return knowledge.stretches().of(at.place(), at.version().id());
        }
        Optional<Criterion.Follows> follows = environments.byId(at.place().environmentId()).rules().follows();
        List<GateFacts.Stretch> all = follows.map(Criterion.Follows::environments).orElse(List.of()).stream()
                .map(name -> environments.find(at.place().component(), name)
                        .map(place -> knowledge.stretches().of(place, at.version().id()))
                        .orElse(new GateFacts.Stretch(name, Duration.ZERO, Optional.empty())))
                .toList();
        return GateFacts.Stretch.counting(all, follows.filter(Criterion.Follows::any).isPresent(),
                knowledge.clock().now());
    }

    private Map<String, GateFacts.Held> conditions(Gates.AtGate at, List<String> conditions) {
        Versions.Version version = at.version();
        Map<String, Object> facts = knowledge.evidence().factsOfVersion(version.id(), version.run());
        facts.putAll(Map.of("component", version.component(), "version", version.number(), "branch", version.branch(),
                "commit", version.commit().orElse(""),
                "trusted", version.trusted(), "live", at.live().map(Versions.Version::number).orElse("")));
        Condition over = over(environments.all().stream().map(Environments.Environment::name).toList());
        Map<String, GateFacts.Held> held = new LinkedHashMap<>();
        conditions.forEach(
                text -> held.put(text, new GateFacts.Held(over.holds(text, facts), Condition.seen(text, facts))));
        return held;
    }

    /** Conditions over the environments that there are; another only when these change. */
    private synchronized Condition over(List<String> names) {
        if (over.isEmpty() || !over.get().environments().equals(names)) {
            over = Optional.of(new Over(names, Condition.overGates(names)));
        }
        return over.get().condition();
    }

    private GateFacts.Said said(Gates.AtGate at) {
        Map<String, GateFacts.Answer> answers = new HashMap<>();
        if (!at.standing().leaves()) {
            mapper.answers(at.standing().deployment()).forEach(row -> answers.put(row.name(),
                    new GateFacts.Answer(Optional.ofNullable(row.yes()), row.words(), row.askedAt())));
        }
        return new GateFacts.Said(decisions(at.standing()), mapper
                .ticks(at.standing().deployment(), at.standing().passage()).stream()
                .map(row -> new Tick(row.item(), row.by(), Tick.Outcome.valueOf(row.outcome()), row.note(), row.at()))
                .toList(), answers);
    }

    List<GateDecision> decisions(Gates.Standing standing) {
        return mapper.of(standing.deployment(), standing.passage()).stream()
                .map(row -> new GateDecision(row.by(), Optional.ofNullable(row.inPlaceOf()), row.yes(), row.comment(),
                        row.subject(),
                        Optional.ofNullable(row.parts()).map(parts -> knowledge.json().read(parts, Subject.class)),
                        row.at()))
                .toList();
    }
}
