package dev.paseo.service.place;

import dev.paseo.service.change.Changes;
import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceDecider;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * The shell around the deciding about places. In one transaction: lock the place, load it, decide about the event,
 * judge the gates again, store, and carry out what follows.
 */
@Component
public class Places {

    private static final int LEARNED_AGAIN = 10;

    private final DeploymentMapper mapper;
    private final PlaceRepository repository;
    private final Gating gating;
    private final Outcomes outcomes;
    private final Changes changes;

    /** What gates are judged with. */
    @Component
    record Gating(Gates gates, WaitingGates waits, Authorship authorship, Environments environments, Versions versions,
            Planner planner, SetMembership sets, Json json) {}

    Places(DeploymentMapper mapper, PlaceRepository repository, Gating gating, Outcomes outcomes, Changes changes) {
        this.mapper = mapper;
        this.repository = repository;
        this.gating = gating;
        this.outcomes = outcomes;
        this.changes = changes;
    }

    public void lock(long place) {
        mapper.lock(place);
    }

    /**
     * Changes a place: {@code event} sees the place under its lock and says what happened, or nothing where only the
     * gates are to be judged again. The reason where it was refused, and then nothing has changed.
     */
    public Optional<String> change(long place, Function<Place, Optional<PlaceEvent>> event) {
        return changes.in(() -> {
            mapper.lock(place);
            return apply(gating.environments().placeById(place), event);
        });
    }

    /** The same, but a refusal is thrown, and undoes what {@code event} itself wrote. */
    public void require(long place, Function<Place, Optional<PlaceEvent>> event, Function<String, Refusal> refusal) {
        changes.run(() -> change(place, event).ifPresent(reason -> {
            throw refusal.apply(reason);
        }));
    }

    /** Whether nothing waits and nothing is under way there. */
    public boolean isQuiet(long place) {
        return repository.isQuiet(place);
    }

    /** Asks git, outside the transaction, who wrote what is proposed there. */
    public void learn(long place) {
        Optional<String> live = live(gating.environments().placeById(place)).flatMap(Versions.Version::commit);
        mapper.open(place).forEach(row -> {
            Versions.Version version = gating.versions().byId(row.versionId());
            version.commit().ifPresent(commit -> gating.authorship().learn(version.componentId(), live, commit));
            ofSet(gating.environments().placeById(place), row)
                    .ifPresent(set -> set.others().forEach(other -> learn(other.place(), other.version())));
        });
    }

    /** The same for a version that is about to be requested. */
    public void learn(Place place, Versions.Version version) {
        Optional<String> live = live(place).flatMap(Versions.Version::commit);
        version.commit().ifPresent(commit -> gating.authorship().learn(version.componentId(), live, commit));
    }

    /**
     * Does what needs the authors of a version known; where what is live moved on in between, they are learned again.
     */
    public <T> T knowing(long place, Versions.Version version, Supplier<T> what) {
        for (int times = 1;; times++) {
            learn(place);
            learn(gating.environments().placeById(place), version);
            try {
                return what.get();
            } catch (Gates.AuthorsUnknown movedOn) {
                if (times == LEARNED_AGAIN) {
                    throw Refusal.unavailable("What is live there keeps changing: try again");
                }
            }
        }
    }

    private Optional<String> apply(Place place, Function<Place, Optional<PlaceEvent>> happened) {
        LoadedPlace kept = repository.load(place);
        Optional<PlaceEvent> event = happened.apply(place);
        boolean judges = event.isEmpty();
        while (event.isPresent()) {
            switch (PlaceDecider.decide(kept.snapshot(), event.get(), changes.now())) {
                case Decision.Refused(String reason) -> {
                    return Optional.of(reason);
                }
                case Decision.Moved(PlaceSnapshot after, var follow) -> kept = carryOut(kept, after, follow);
            }
            event = factsJudged(kept);
        }
        if (judges || kept.snapshot().open().stream().anyMatch(deployment -> deployment.status().ahead())) {
            judgeGates(gating.environments().placeById(place.id()));
        } else {
            wakeAt(place, kept.snapshot(), Map.of());
        }
        return Optional.empty();
    }

    private LoadedPlace carryOut(LoadedPlace before, PlaceSnapshot after, List<PlaceEffect> follow) {
        Instant now = changes.now();
        List<DeploymentState> changed = after.open().stream()
                .filter(deployment -> !before.snapshot().deployment(deployment.id()).equals(Optional.of(deployment)))
                .toList();
        changed.stream().filter(deployment -> deployment.status().active() && Optional
                .ofNullable(before.rows().get(deployment.id())).filter(row -> row.startedAt() == null).isPresent())
                .forEach(deployment -> begins(before.place(), before.row(deployment.id())));
        LoadedPlace saved = repository.save(before, after, now);
        changed.forEach(deployment -> moved(before, saved, deployment));
        follow.forEach(effect -> outcomes.carryOut(saved, effect));
        return saved;
    }

    /** A plan that has come to a condition over facts goes on, or back, at once. */
    private Optional<PlaceEvent> factsJudged(LoadedPlace kept) {
        return kept.snapshot().open().stream().filter(deployment -> deployment.factsAsked().isPresent()).findFirst()
                .map(deployment -> {
                    Judgement judged = gating.gates().fact(atGate(kept.place(), kept.row(deployment.id())),
                            deployment.factsAsked().orElseThrow());
                    return new PlaceEvent.FactsJudged(deployment.id(), judged.state() == Judgement.State.MET,
                            judged.sentence());
                });
    }

    /** What has not begun is planned and judged as things are now; what may begin, begins. */
    private void judgeGates(Place place) {
        Instant now = changes.now();
        LoadedPlace kept = repository.load(place);
        for (long id : mapper.aheadAndBlocked(place.id())) {
            PlaceEvent blocked = new PlaceEvent.CancelAsked(id, "the block of its version");
            if (PlaceDecider.decide(kept.snapshot(), blocked, now) instanceof Decision.Moved(var after, var follow)) {
                kept = carryOut(kept, after, follow);
            }
        }
        PlaceSnapshot state = kept.snapshot();
        List<Deployment> rows = List.copyOf(kept.rows().values());
        Map<Long, Evaluation> gates = new LinkedHashMap<>();
        Map<Long, Verdict> verdicts = new LinkedHashMap<>();
        Map<Long, Versions.Version> versions = new LinkedHashMap<>();
        for (Deployment row : rows) {
            if (state.deployment(row.id()).filter(deployment -> deployment.status().ahead()).isPresent()) {
                versions.put(row.id(), gating.versions().byId(row.versionId()));
                evaluate(place, row).ifPresent(gate -> {
                    gates.put(row.id(), gate);
                    verdicts.put(row.id(), gate.verdict());
                });
            }
        }
        PlaceSnapshot after = state;
        if (!versions.isEmpty()) {
            PlaceSnapshot planned = state.planned(deployment -> gating.planner().plan(deployment, place,
                    place.liveSide(), versions.get(deployment.id())));
            PlaceEvent judged = new PlaceEvent.GatesJudged(verdicts);
            if (PlaceDecider.decide(planned, judged, now) instanceof Decision.Moved(var moved, var follow)) {
                after = carryOut(kept, moved, follow).snapshot();
            }
        }
        keepWaits(place, rows, after, gates);
        wakeAt(place, after, verdicts);
    }

    /** Lists of what waits are read, not judged: how each stands is kept as it was judged. */
    private void keepWaits(Place place, List<Deployment> rows, PlaceSnapshot after, Map<Long, Evaluation> gates) {
        rows.forEach(row -> after.deployment(row.id()).filter(deployment -> gates.containsKey(row.id()))
                .ifPresent(deployment -> {
                    if (deployment.status() == DeploymentStatus.WAITING) {
                        gating.waits().keep(atGate(place, row), gates.get(row.id()));
                    } else {
                        gating.waits().gone(Gates.Standing.ofDeployment(row.id()));
                    }
                }));
    }

    private void wakeAt(Place place, PlaceSnapshot state, Map<Long, Verdict> verdicts) {
        boolean unjudged = state.open().stream()
                .anyMatch(deployment -> deployment.status().ahead() && !verdicts.containsKey(deployment.id()));
        Stream<Instant> again = verdicts.entrySet().stream().filter(entry -> state.deployment(entry.getKey())
                .filter(deployment -> deployment.status().ahead()).isPresent())
                .flatMap(entry -> entry.getValue().again().stream());
        Optional<Instant> wake = unjudged ? Optional.of(changes.now())
                : Stream.concat(again, state.wake().stream()).min(Instant::compareTo);
        mapper.wakeAt(place.id(), wake.orElse(null));
    }

    /** The version that is live there. */
    public Optional<Versions.Version> live(Place place) {
        return repository.version(place);
    }

    /** Empty where git must be asked first, which happens outside transactions; until then the gate counts as shut. */
    private Optional<Evaluation> evaluate(Place place, Deployment row) {
        try {
            return Optional.of(gating.gates().evaluate(atGate(place, row)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }

    public Gates.AtGate atGate(Place place, Deployment row) {
        return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), place, gating.versions().byId(row.versionId()),
                live(place),
                Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), row.kind(), ofSet(place, row));
    }

    /** The same as if it were of no set. */
    private static Gates.AtGate alone(Gates.AtGate at) {
        return new Gates.AtGate(at.standing(), at.place(), at.version(), at.live(), at.requester(), at.requestedAt(),
                at.kind(), Optional.empty());
    }

    /** What a promotion of this version there would deploy now. */
    public Subject subject(Place place, Versions.Version version) {
        return gating.gates().subject(proposed(place, version, ""));
    }

    /** What its gate would say now, were this version promoted there by this person. */
    public Evaluation prospect(Place place, Versions.Version version, String requester) {
        return knowing(place.id(), version, () -> gating.gates().evaluate(proposed(place, version, requester)));
    }

    private Gates.AtGate proposed(Place place, Versions.Version version, String requester) {
        return new Gates.AtGate(Gates.Standing.ofDeployment(0), place, version, live(place), requester, changes.now(),
                Kind.PROMOTION, Optional.empty());
    }

    /** Where it is of a set: the first stands at the gate for all of them, the others follow without one. */
    private Optional<Gates.InSet> ofSet(Place place, Deployment row) {
        return Optional.ofNullable(row.promotionId()).map(id -> {
            List<Long> members = gating.sets().members(id);
            List<Gates.AtGate> alone = members.stream().map(version -> {
                Versions.Version member = gating.versions().byId(version);
                Place there = gating.environments().place(member.component(), place.environment());
                return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), there, member, live(there),
                        Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), Kind.PROMOTION,
                        Optional.empty());
            }).toList();
            List<Gates.AtGate> others = alone.stream().filter(each -> each.version().id() != row.versionId())
                    .map(each -> each.with(alone.stream().filter(beside -> beside != each).toList())).toList();
            return new Gates.InSet(members.getFirst() == row.versionId(), others);
        });
    }

    /** What people approved, and what hosts are given, is written down as it is now. */
    private void begins(Place place, Deployment row) {
        Gates.AtGate at = atGate(place, row);
        outcomes.begins(place, row, gating.gates().digest(at));
        at.set().filter(Gates.InSet::first)
                .ifPresent(set -> gating.sets().approved(Objects.requireNonNull(row.promotionId()),
                        gating.json().write(set.others().stream()
                                .collect(Collectors.toMap(other -> other.version().component(),
                                        other -> gating.gates().subject(alone(other)))))));
    }

    private void moved(LoadedPlace before, LoadedPlace after, DeploymentState deployment) {
        Deployment row = after.row(deployment.id());
        if (!deployment.status().ahead()) {
            gating.waits().gone(Gates.Standing.ofDeployment(row.id()));
        }
        boolean other = before.snapshot().deployment(row.id()).filter(was -> was.status() != deployment.status())
                .isPresent();
        // That it was replaced is said by what went live instead.
        if (other && deployment.status() != DeploymentStatus.REPLACED) {
            outcomes.moved(before.place(), before.row(deployment.id()), deployment);
        }
        outcomes.tell(row.id());
    }

}
