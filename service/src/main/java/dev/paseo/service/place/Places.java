package dev.paseo.service.place;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.PlaceDecider;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.JudgedGates.Judged;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * The shell around the deciding about places. In one transaction: lock the place, load it, decide about the event,
 * judge the gates again, store, and carry out what follows.
 */
@Component
public class Places {

    private final PlaceRepository repository;
    private final JudgedGates gates;
    private final Beginnings beginnings;
    private final Outcomes outcomes;
    private final Changes changes;

    Places(PlaceRepository repository, JudgedGates gates, Beginnings beginnings, Outcomes outcomes,
            Changes changes) {
        this.repository = repository;
        this.gates = gates;
        this.beginnings = beginnings;
        this.outcomes = outcomes;
        this.changes = changes;
    }

    public void lock(long place) {
        repository.lock(place);
    }

    /**
     * Changes a place: {@code event} sees the place under its lock and says what happened, or nothing where only the
     * gates are to be judged again. The reason where it was refused, and then nothing has changed.
     */
    public Optional<String> change(long place, Function<Place, Optional<PlaceEvent>> event) {
        return changes.in(() -> {
            repository.lock(place);
            return apply(repository.place(place), event);
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
            event = gates.factsJudged(kept);
        }
        if (judges || kept.snapshot().open().stream().anyMatch(deployment -> deployment.status().ahead())) {
            judgeGates(repository.place(place.id()));
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
                .forEach(deployment -> beginnings.begins(before.place(), before.row(deployment.id())));
        LoadedPlace saved = repository.save(before, after, now);
        changed.forEach(deployment -> moved(before, saved, deployment));
        follow.forEach(effect -> outcomes.carryOut(saved, effect));
        return saved;
    }

    /** What has not begun is planned and judged as things are now; what may begin, begins. */
    private void judgeGates(Place place) {
        Instant now = changes.now();
        LoadedPlace kept = repository.load(place);
        for (long id : repository.aheadAndBlocked(place.id())) {
            PlaceEvent blocked = new PlaceEvent.CancelAsked(id, "the block of its version");
            if (PlaceDecider.decide(kept.snapshot(), blocked, now) instanceof Decision.Moved(var after, var follow)) {
                kept = carryOut(kept, after, follow);
            }
        }
        LoadedPlace before = kept;
        Optional<Judged> judged = gates.judge(before);
        Map<Long, Verdict> verdicts = judged.map(Judged::verdicts).orElse(Map.of());
        PlaceSnapshot after = judged.map(each -> begun(before, each, verdicts, now)).orElse(before.snapshot());
        gates.keepWaits(place, List.copyOf(before.rows().values()), after,
                judged.map(Judged::evaluations).orElse(Map.of()));
        wakeAt(place, after, verdicts);
    }

    private PlaceSnapshot begun(LoadedPlace before, Judged judged, Map<Long, Verdict> verdicts, Instant now) {
        return switch (PlaceDecider.decide(judged.planned(), new PlaceEvent.GatesJudged(verdicts), now)) {
            case Decision.Moved(PlaceSnapshot moved, var follow) -> carryOut(before, moved, follow).snapshot();
            case Decision.Refused(String reason) -> before.snapshot();
        };
    }

    private void wakeAt(Place place, PlaceSnapshot state, Map<Long, Verdict> verdicts) {
        boolean unjudged = state.open().stream()
                .anyMatch(deployment -> deployment.status().ahead() && !verdicts.containsKey(deployment.id()));
        Stream<Instant> again = verdicts.entrySet().stream().filter(entry -> state.deployment(entry.getKey())
                .filter(deployment -> deployment.status().ahead()).isPresent())
                .flatMap(entry -> entry.getValue().again().stream());
        Optional<Instant> wake = unjudged ? Optional.of(changes.now())
                : Stream.concat(again, state.wake().stream()).min(Instant::compareTo);
        repository.wakeAt(place.id(), wake);
    }

    /** The version that is live there. */
    public Optional<Versions.Version> live(Place place) {
        return repository.version(place);
    }

    /** @throws Refusal a conflict where nothing is */
    public Versions.Version requireLive(Place place) {
        return live(place).orElseThrow(
                () -> Refusal.conflict("Nothing of " + place.component() + " is live in " + place.environment()));
    }

    private void moved(LoadedPlace before, LoadedPlace after, DeploymentState deployment) {
        Deployment row = after.row(deployment.id());
        if (!deployment.status().ahead()) {
            gates.over(deployment);
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
