package dev.paseo.service.deployment;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceDecider;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceState;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.Waits;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * The shell around the deciding about places. In one transaction: lock the place, load it, decide about the event, judge
 * the gates again, store, and carry out what follows.
 */
@Component
class Places {

    private static final int LEARNED_AGAIN = 10;

    private final DeploymentMapper mapper;
    private final Json json;
    private final Gating gating;
    private final Outcomes outcomes;
    private final Around around;

    /** What gates are judged with. */
    @Component
    record Gating(Gates gates, Waits waits, Authorship authorship, Environments environments, Versions versions, Planner planner, SetMapper sets) {}

    /** How transactions are run, and by what time. */
    @Component
    record Around(Transactions transactions, ServiceClock clock) {}

    Places(DeploymentMapper mapper, Json json, Gating gating, Outcomes outcomes, Around around) {
        this.mapper = mapper;
        this.json = json;
        this.gating = gating;
        this.outcomes = outcomes;
        this.around = around;
    }

    void lock(long place) {
        mapper.lock(place);
    }

    /**
     * Changes a place: {@code event} sees the place under its lock and says what happened, or nothing where only the gates
     * are to be judged again. The reason where it was refused, and then nothing has changed.
     */
    Optional<String> change(long place, Function<Place, Optional<PlaceEvent>> event) {
        return around.transactions().in(() -> {
            mapper.lock(place);
            return apply(gating.environments().placeById(place), event);
        });
    }

    /** The same, but a refusal is thrown, and undoes what {@code event} itself wrote. */
    void require(long place, Function<Place, Optional<PlaceEvent>> event, Function<String, Refusal> refusal) {
        around.transactions().run(() -> change(place, event).ifPresent(reason -> {
            throw refusal.apply(reason);
        }));
    }

    /** Whether nothing waits and nothing is under way there. */
    boolean isQuiet(long place) {
        return mapper.open(place).stream().noneMatch(row -> json.read(row.state(), DeploymentState.class).status().open());
    }

    /** Asks git, outside the transaction, who wrote what is proposed there. */
    void learn(long place) {
        Optional<String> live = live(gating.environments().placeById(place)).flatMap(Versions.Sealed::commit);
        mapper.open(place).forEach(row -> {
            Versions.Sealed version = gating.versions().byId(row.versionId());
            version.commit().ifPresent(commit -> gating.authorship().learn(version.componentId(), live, commit));
            ofSet(gating.environments().placeById(place), row).ifPresent(set -> set.others().forEach(other -> learn(other.place(), other.version())));
        });
    }

    /** The same for a version that is about to be requested. */
    void learn(Place place, Versions.Sealed version) {
        Optional<String> live = live(place).flatMap(Versions.Sealed::commit);
        version.commit().ifPresent(commit -> gating.authorship().learn(version.componentId(), live, commit));
    }

    /** Does what needs the authors of a version known; where what is live moved on in between, they are learned again. */
    <T> T knowing(long place, Versions.Sealed version, Supplier<T> what) {
        for (int times = 1; ; times++) {
            learn(place);
            learn(gating.environments().placeById(place), version);
            try {
                return what.get();
            } catch (Gates.AuthorsUnknown movedOn) {
                if (times == LEARNED_AGAIN) {
                    throw Refusal.unavailable("what is live there keeps changing: try again");
                }
            }
        }
    }

    private Optional<String> apply(Place place, Function<Place, Optional<PlaceEvent>> happened) {
        Optional<PlaceState> known = Optional.empty();
        Optional<PlaceEvent> event = happened.apply(place);
        while (event.isPresent()) {
            Decision<PlaceState, PlaceEffect> decision = step(place, event.get());
            if (decision instanceof Decision.Refused<PlaceState, PlaceEffect>(String reason)) {
                return Optional.of(reason);
            }
            known = known(decision);
            event = known.flatMap(now -> factsJudged(place, now));
        }
        if (known.filter(now -> now.open().stream().noneMatch(deployment -> deployment.status().ahead())).isPresent()) {
            wakeAt(place, known.get(), Map.of());
        } else {
            judgeGates(gating.environments().placeById(place.id()));
        }
        return Optional.empty();
    }

    private Decision<PlaceState, PlaceEffect> step(Place place, PlaceEvent event) {
        List<DeploymentRow> rows = mapper.open(place.id());
        PlaceState before = load(place, rows);
        Decision<PlaceState, PlaceEffect> decision = PlaceDecider.decide(before, event, around.clock().now());
        if (decision instanceof Decision.Moved<PlaceState, PlaceEffect>(PlaceState after, List<PlaceEffect> follow)) {
            carryOut(place, rows, before, after, follow);
        }
        return decision;
    }

    private void carryOut(Place place, List<DeploymentRow> rows, PlaceState before, PlaceState after, List<PlaceEffect> follow) {
        Instant now = around.clock().now();
        for (DeploymentRow row : rows) {
            after.deployment(row.id()).filter(deployment -> !before.deployment(row.id()).equals(Optional.of(deployment)))
                    .ifPresent(deployment -> store(place, row, deployment, now));
        }
        follow.forEach(effect -> outcomes.carryOut(place, effect));
    }

    /** How the place is after a decision; empty where what follows changes more of it, and it is read again. */
    private static Optional<PlaceState> known(Decision<PlaceState, PlaceEffect> decision) {
        return decision instanceof Decision.Moved<PlaceState, PlaceEffect>(PlaceState after, List<PlaceEffect> follow)
                && follow.stream().noneMatch(PlaceEffect::ofWhole) ? Optional.of(after) : Optional.empty();
    }

    /** A plan that has come to a condition over facts goes on, or back, at once. */
    private Optional<PlaceEvent> factsJudged(Place place, PlaceState state) {
        return state.open().stream().filter(deployment -> deployment.factsAsked().isPresent()).findFirst().map(deployment -> {
            Judgement judged = gating.gates().fact(atGate(place, mapper.byId(deployment.id()).orElseThrow()), deployment.factsAsked().orElseThrow());
            return new PlaceEvent.FactsJudged(deployment.id(), judged.state() == Judgement.State.MET, judged.sentence());
        });
    }

    /** What has not begun is planned and judged as things are now; what may begin, begins. */
    private void judgeGates(Place place) {
        mapper.aheadAndBlocked(place.id()).forEach(id -> step(place, new PlaceEvent.CancelAsked(id, "the block of its version")));
        List<DeploymentRow> rows = mapper.open(place.id());
        PlaceState state = load(place, rows);
        Map<Long, Evaluation> gates = new LinkedHashMap<>();
        Map<Long, Verdict> verdicts = new LinkedHashMap<>();
        Map<Long, Versions.Sealed> versions = new LinkedHashMap<>();
        for (DeploymentRow row : rows) {
            if (state.deployment(row.id()).filter(deployment -> deployment.status().ahead()).isPresent()) {
                versions.put(row.id(), gating.versions().byId(row.versionId()));
                evaluate(place, row).ifPresent(gate -> {
                    gates.put(row.id(), gate);
                    verdicts.put(row.id(), gate.verdict());
                });
            }
        }
        PlaceState after = state;
        if (!versions.isEmpty()) {
            PlaceState planned = state.planned(deployment -> gating.planner().plan(deployment, place, place.liveSide(), versions.get(deployment.id())));
            if (PlaceDecider.decide(planned, new PlaceEvent.GatesJudged(verdicts), around.clock().now())
                    instanceof Decision.Moved<PlaceState, PlaceEffect>(PlaceState moved, List<PlaceEffect> follow)) {
                after = moved;
                carryOut(place, rows, state, after, follow);
            }
        }
        keepWaits(place, rows, after, gates);
        wakeAt(place, after, verdicts);
    }

    /** Lists of what waits are read, not judged: how each stands is kept as it was judged. */
    private void keepWaits(Place place, List<DeploymentRow> rows, PlaceState after, Map<Long, Evaluation> gates) {
        rows.forEach(row -> after.deployment(row.id()).filter(deployment -> gates.containsKey(row.id())).ifPresent(deployment -> {
            if (deployment.status() == DeploymentStatus.WAITING) {
                gating.waits().keep(atGate(place, row), gates.get(row.id()));
            } else {
                gating.waits().gone(Gates.Standing.ofDeployment(row.id()));
            }
        }));
    }

    private void wakeAt(Place place, PlaceState state, Map<Long, Verdict> verdicts) {
        boolean unjudged = state.open().stream().anyMatch(deployment -> deployment.status().ahead() && !verdicts.containsKey(deployment.id()));
        Stream<Instant> again = verdicts.entrySet().stream().filter(entry -> state.deployment(entry.getKey())
                .filter(deployment -> deployment.status().ahead()).isPresent()).flatMap(entry -> entry.getValue().again().stream());
        Optional<Instant> wake = unjudged ? Optional.of(around.clock().now()) : Stream.concat(again, state.wake().stream()).min(Instant::compareTo);
        mapper.wakeAt(place.id(), wake.orElse(null));
    }

    /** A row that is only being requested has no state yet. */
    private PlaceState load(Place place, List<DeploymentRow> rows) {
        List<DeploymentState> open = rows.stream().filter(row -> !row.state().equals("{}"))
                .map(row -> json.read(row.state(), DeploymentState.class)).toList();
        return new PlaceState(live(place).map(version -> new PlaceState.Live(place.liveDeployment().orElseThrow(), version.number(),
                version.line(), version.order(), place.liveSide())), open);
    }

    /** The version that is live there. */
    Optional<Versions.Sealed> live(Place place) {
        return place.liveDeployment().flatMap(mapper::byId).map(row -> gating.versions().byId(row.versionId()));
    }

    /** Empty where git must be asked first, which happens outside transactions; until then the gate counts as shut. */
    private Optional<Evaluation> evaluate(Place place, DeploymentRow row) {
        try {
            return Optional.of(gating.gates().evaluate(atGate(place, row)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }

    Gates.AtGate atGate(Place place, DeploymentRow row) {
        return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), place, gating.versions().byId(row.versionId()), live(place),
                Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), Kind.valueOf(row.kind().toUpperCase(Locale.ROOT)), ofSet(place, row));
    }

    /** The same as if it were of no set. */
    private static Gates.AtGate alone(Gates.AtGate at) {
        return new Gates.AtGate(at.standing(), at.place(), at.version(), at.live(), at.requester(), at.requestedAt(), at.kind(), Optional.empty());
    }

    /** What a promotion of this version there would deploy now. */
    Subject subject(Place place, Versions.Sealed version) {
        return gating.gates().subject(new Gates.AtGate(Gates.Standing.ofDeployment(0), place, version, live(place), "", around.clock().now(), Kind.PROMOTION, Optional.empty()));
    }

    /** Where it is of a set: the first stands at the gate for all of them, the others follow without one. */
    private Optional<Gates.InSet> ofSet(Place place, DeploymentRow row) {
        return Optional.ofNullable(row.promotionId()).map(id -> {
            List<Long> members = gating.sets().members(gating.sets().promotion(id).setId());
            List<Gates.AtGate> alone = members.stream().map(version -> {
                Versions.Sealed member = gating.versions().byId(version);
                Place there = gating.environments().place(member.component(), place.environment());
                return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), there, member, live(there), Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), Kind.PROMOTION, Optional.empty());
            }).toList();
            List<Gates.AtGate> others = alone.stream().filter(each -> each.version().id() != row.versionId())
                    .map(each -> each.with(alone.stream().filter(beside -> beside != each).toList())).toList();
            return new Gates.InSet(members.getFirst() == row.versionId(), others);
        });
    }

    private void store(Place place, DeploymentRow row, DeploymentState deployment, Instant now) {
        String state = json.write(deployment);
        boolean begins = deployment.status().active() && row.startedAt() == null;
        if (begins) {
            Gates.AtGate at = atGate(place, row);
            outcomes.begins(place, row, gating.gates().digest(at));
            at.set().filter(Gates.InSet::first).ifPresent(set -> gating.sets().approved(java.util.Objects.requireNonNull(row.promotionId()), json.write(set.others().stream()
                    .collect(java.util.stream.Collectors.toMap(other -> other.version().component(), other -> gating.gates().subject(alone(other)))))));
        }
        boolean live = deployment.status() == DeploymentStatus.LIVE;
        boolean ended = !deployment.status().open() && !live;
        if (mapper.move(row.id(), row.revision(), word(deployment.status()), state, deployment.ending().orElse(null),
                begins ? now : row.startedAt(), live && row.liveAt() == null ? now : row.liveAt(), ended ? now : null) != 1) {
            throw new Transactions.LostRace("deployment " + row.id() + " moved on");
        }
        if (!deployment.status().ahead()) {
            gating.waits().gone(Gates.Standing.ofDeployment(row.id()));
        }
        if (!word(deployment.status()).equals(row.status())) {
            outcomes.moved(place, row, deployment);
        }
        outcomes.tell(row.id());
    }

    static String word(Enum<?> status) {
        return status.name().toLowerCase(java.util.Locale.ROOT);
    }
}
