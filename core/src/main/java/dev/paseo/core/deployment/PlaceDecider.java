package dev.paseo.core.deployment;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.HostState.Phase;
import dev.paseo.core.gate.Verdict;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * Decides about places: requests, the queue, and, by {@link Onward} and {@link Retreat}, what happens on hosts. Pure.
 */
public final class PlaceDecider {

    private PlaceDecider() {}

    /** @param now the moment that pauses are counted from */
    public static Decision<PlaceSnapshot, PlaceEffect> decide(PlaceSnapshot place, PlaceEvent event, Instant now) {
        return switch (event) {
            case PlaceEvent.Requested(DeploymentState wanted) -> request(place, wanted);
            case PlaceEvent.GatesJudged(Map<Long, Verdict> verdicts) -> judged(place, verdicts, now);
            case PlaceEvent.HostReported(long id, String host, HostTask task, HostOutcome outcome) -> of(place, id,
                    deployment -> HostReports.reported(deployment, host, task, outcome, now)
                            .map(step -> settle(place, step, now))
                            .orElseGet(() -> Decision.refused("that task of that host is not running")));
            case PlaceEvent.CancelAsked(long id, String by) -> of(place, id,
                    deployment -> cancel(place, deployment, by, now));
            case PlaceEvent.GoesBack(long id, String why) -> of(place, id,
                    deployment -> goesBack(place, deployment, why, now));
            case PlaceEvent.TimePassed() -> timePassed(place, now);
            case PlaceEvent.Answered(long id, String by, boolean yes) -> of(place, id,
                    deployment -> answered(place, deployment, by, yes, now));
            case PlaceEvent.FactsJudged(long id, boolean hold, String sentence) -> of(place, id,
                    deployment -> factsJudged(place, deployment, hold, sentence, now));
            case PlaceEvent.HostAway(String host, String why, boolean untaken) -> leaveOut(place, host, why, untaken,
                    now);
            case PlaceEvent.TendAsked(List<String> hosts) -> tend(place, hosts, now);
            case PlaceEvent.RemovalAsked(String why) -> remove(place, why, now);
            case PlaceEvent.Recorded recorded -> record(place, recorded, now);
            case PlaceEvent.Found(String host, long deployment) -> found(place, host, deployment, now);
        };
    }

    private static Decision<PlaceSnapshot, PlaceEffect> of(
            PlaceSnapshot place, long id, Function<DeploymentState, Decision<PlaceSnapshot, PlaceEffect>> decide) {
        return place.deployment(id).map(decide).orElseGet(() -> Decision.refused("deployment " + id + " has ended"));
    }

    private static Decision<PlaceSnapshot, PlaceEffect> request(PlaceSnapshot place, DeploymentState wanted) {
        for (DeploymentState other : place.open()) {
            if (other.version().equals(wanted.version()) && other.status().open()
                    && other.status() != DeploymentStatus.UNDOING) {
                return Decision.refused(
                        "deployment " + other.id() + " of " + wanted.version() + " is on its way there already");
            }
        }
        Optional<String> backwards = wanted.automatic() ? backwards(place, wanted) : Optional.empty();
        if (backwards.isPresent()) {
            return Decision.refused(backwards.get());
        }
        PlaceSnapshot now = place;
        for (DeploymentState other : place.open()) {
            // What a person asked for is never overtaken by what nobody asked for.
            boolean may = other.automatic() || !wanted.automatic();
            if (may && other.status().ahead() && other.line() == wanted.line() && other.order() < wanted.order()) {
                now = now.with(other.because("overtaken by " + wanted.version()).to(DeploymentStatus.OVERTAKEN));
            }
        }
        return Decision.moved(now.plus(wanted), List.of());
    }

    /** An automatic deployment never goes backwards in a line. */
    private static Optional<String> backwards(PlaceSnapshot place, DeploymentState wanted) {
        Optional<String> live = place.live()
                .filter(now -> now.line() == wanted.line() && now.order() >= wanted.order())
                .map(now -> now.version() + ", which is not older, is live there");
        return live.or(() -> place.open().stream()
                .filter(other -> other.line() == wanted.line() && other.order() > wanted.order())
                .filter(other -> other.status().open() && other.status() != DeploymentStatus.UNDOING)
                .findFirst().map(other -> other.version() + ", which is newer, is on its way there"));
    }

    private static Decision<PlaceSnapshot, PlaceEffect> judged(PlaceSnapshot place, Map<Long, Verdict> verdicts,
            Instant moment) {
        PlaceSnapshot now = place;
        List<PlaceEffect> effects = new ArrayList<>();
        for (DeploymentState deployment : place.open()) {
            if (deployment.status().ahead()) {
                // Without a verdict a gate counts as shut.
                now = pass(deployment, Optional.ofNullable(verdicts.get(deployment.id())), now, moment, effects);
            }
        }
        return Decision.moved(now, effects);
    }

    private static PlaceSnapshot pass(
            DeploymentState deployment, Optional<Verdict> verdict, PlaceSnapshot place, Instant now,
            List<PlaceEffect> effects) {
        boolean emergency = deployment.terms().emergency();
        if (verdict.flatMap(Verdict::rejected).isPresent() && !emergency) {
            return place.with(deployment.because(verdict.get().rejected().get()).to(DeploymentStatus.REJECTED));
        }
        if (verdict.flatMap(Verdict::expired).isPresent() && !emergency) {
            return place.with(deployment.because(verdict.get().expired().get()).to(DeploymentStatus.EXPIRED));
        }
        if (verdict.filter(each -> emergency || each.open()).isEmpty()) {
            return place.with(deployment.to(DeploymentStatus.WAITING));
        }
        if (place.busy() || deployment.automatic() && !deployment.terms().takesOver() && unsettled(place)) {
            return place.with(deployment.to(DeploymentStatus.QUEUED));
        }
        return begin(deployment, place, now, effects);
    }

    /** Whether what is live is still being watched or tested. */
    private static boolean unsettled(PlaceSnapshot place) {
        return place.live().flatMap(live -> place.deployment(live.deployment()))
                .filter(live -> live.course().plan().stream().skip(live.course().at())
                        .anyMatch(each -> each.what() == Movement.What.SETTLED))
                .isPresent();
    }

    private static PlaceSnapshot begin(DeploymentState deployment, PlaceSnapshot place, Instant now,
            List<PlaceEffect> effects) {
        PlaceSnapshot before = place;
        Optional<DeploymentState> live = place.live().flatMap(at -> place.deployment(at.deployment()))
                .filter(at -> at.course().now().isPresent());
        if (live.isPresent()) {
            before = taken(before, Onward.abandon(live.get()), now, effects);
        }
        DeploymentState begun = deployment.backTo(place.live());
        return taken(before.beginning(begun), Onward.start(begun, now), now, effects);
    }

    private static Decision<PlaceSnapshot, PlaceEffect> cancel(PlaceSnapshot place, DeploymentState deployment,
            String by, Instant now) {
        return switch (deployment.status()) {
            case WAITING, QUEUED -> Decision.moved(
                    place.with(deployment.because("withdrawn by " + by).to(DeploymentStatus.WITHDRAWN)), List.of());
            case DEPLOYING, CHECKING -> settle(place,
                    Retreat.begin(deployment, "cancelled by " + by, true, new ArrayList<>()), now);
            case UNDOING -> Decision.refused("it is being undone already");
            case LIVE -> Decision.refused("it is live; to go back from it, use paseo rollback");
            case REPLACED, UNDONE, REMOVED, STOPPED, FAILED, REJECTED, EXPIRED, WITHDRAWN,
                    OVERTAKEN -> Decision.refused("it has ended");
        };
    }

    private static Decision<PlaceSnapshot, PlaceEffect> goesBack(PlaceSnapshot place, DeploymentState deployment,
            String why, Instant now) {
        return switch (deployment.status()) {
            case WAITING, QUEUED -> Decision.moved(place.with(deployment.because(why).to(DeploymentStatus.WITHDRAWN)),
                    List.of());
            case DEPLOYING, CHECKING -> settle(place, Retreat.begin(deployment, why, true, new ArrayList<>()), now);
            case LIVE -> {
                boolean busy = place.open().stream()
                        .anyMatch(other -> other.id() != deployment.id() && other.status().active());
                yield busy || place.live().filter(there -> there.deployment() == deployment.id()).isEmpty()
                        ? Decision.refused("another deployment has come after it")
                        : settle(place, Retreat.begin(deployment, why, true, new ArrayList<>()), now);
            }
            case REPLACED, UNDOING, UNDONE, REMOVED, STOPPED, FAILED, REJECTED, EXPIRED, WITHDRAWN,
                    OVERTAKEN -> Decision.refused("deployment " + deployment.id() + " has ended");
        };
    }

    private static Decision<PlaceSnapshot, PlaceEffect> timePassed(PlaceSnapshot place, Instant now) {
        for (DeploymentState deployment : place.open()) {
            if (deployment.course().until().filter(end -> !now.isBefore(end)).isPresent()
                    && deployment.ending().isEmpty()) {
                return settle(place, Onward.next(deployment, now, new ArrayList<>()), now);
            }
        }
        return Decision.moved(place, List.of());
    }

    private static Decision<PlaceSnapshot, PlaceEffect> answered(PlaceSnapshot place, DeploymentState deployment,
            String by, boolean yes, Instant now) {
        if (!deployment.course().is(Movement.What.QUESTION) || deployment.ending().isPresent()) {
            return Decision.refused("deployment " + deployment.id() + " asks nobody whether it goes on");
        }
        return settle(place, yes ? Onward.next(deployment, now, new ArrayList<>())
                : Retreat.begin(deployment, by + " said that it does not go on", true, new ArrayList<>()), now);
    }

    private static Decision<PlaceSnapshot, PlaceEffect> factsJudged(PlaceSnapshot place, DeploymentState deployment,
            boolean hold, String sentence, Instant now) {
        if (deployment.factsAsked().isEmpty()) {
            return Decision.refused("deployment " + deployment.id() + " asks for no facts");
        }
        return settle(place, hold ? Onward.next(deployment, now, new ArrayList<>())
                : Retreat
                        .begin(deployment,
                                "with " + deployment.course().share() + " % of the traffic, "
                                        + deployment.factsAsked().get() + ": " + sentence,
                                false, new ArrayList<>()),
                now);
    }

    /**
     * A deployment under way leaves the host out, unless its recipe may have begun or no other would be left; it
     * catches up later.
     */
    private static Decision<PlaceSnapshot, PlaceEffect> leaveOut(PlaceSnapshot place, String name, String why,
            boolean untaken, Instant now) {
        for (DeploymentState deployment : place.open()) {
            boolean under = deployment.status().active() && deployment.ending().isEmpty();
            boolean spared = deployment.host(name)
                    .filter(host -> host.phase() == Phase.AHEAD || untaken && host.phase() == Phase.INSTALLING)
                    .isPresent();
            boolean others = deployment.hosts().stream().anyMatch(
                    host -> !host.host().equals(name) && host.phase() != Phase.AWAY && host.phase() != Phase.FAILED);
            if (under && spared && others) {
                List<Consequence> effects = new ArrayList<>();
                if (deployment.host(name).filter(host -> host.phase() == Phase.INSTALLING).isPresent()) {
                    effects.add(new PlaceEffect.WithdrawTask(deployment.id(), name));
                }
                return settle(place,
                        Onward.advance(deployment.withHost(name, host -> HostState.away(name, why)), now, effects),
                        now);
            }
        }
        return Decision.moved(place, List.of());
    }

    private static Decision<PlaceSnapshot, PlaceEffect> tend(PlaceSnapshot place, List<String> hosts, Instant now) {
        Optional<DeploymentState> live = place.live().flatMap(at -> place.deployment(at.deployment()));
        if (live.isEmpty()) {
            return Decision.refused("nothing is live there that a host could be brought to");
        }
        if (live.get().status() != DeploymentStatus.LIVE) {
            return Decision.refused("deployment " + live.get().id()
                    + ", which is live there, was stopped: go back from it, or deploy another version");
        }
        if (place.open().stream().anyMatch(deployment -> deployment.status().active())) {
            return Decision.refused("a deployment is under way there");
        }
        Optional<String> busy = hosts.stream()
                .filter(host -> live.get().host(host).filter(state -> state.phase().busy()).isPresent()).findFirst();
        return busy.map(host -> Decision.<PlaceSnapshot, PlaceEffect>refused(host + " is being looked after already"))
                .orElseGet(() -> settle(place, Onward.tend(live.get(), hosts), now));
    }

    private static Decision<PlaceSnapshot, PlaceEffect> remove(PlaceSnapshot place, String why, Instant moment) {
        PlaceSnapshot now = place;
        for (DeploymentState other : place.open()) {
            if (other.status().ahead()) {
                now = now.with(other.because(why).to(DeploymentStatus.WITHDRAWN));
            }
        }
        Optional<DeploymentState> active = now.open().stream().filter(deployment -> deployment.status().active())
                .findFirst();
        if (active.isPresent()) {
            return active.get().status() == DeploymentStatus.UNDOING ? Decision.moved(now, List.of())
                    : settle(now, Retreat.begin(takenAway(active.get()), why, true, new ArrayList<>()), moment);
        }
        Optional<DeploymentState> live = now.live().flatMap(at -> place.deployment(at.deployment()));
        if (live.isEmpty()) {
            return Decision.moved(now, List.of());
        }
        Step abandoned = Onward.abandon(live.get());
        return settle(now, Retreat.remove(abandoned.deployment(), why, new ArrayList<>(abandoned.effects())), moment);
    }

    /** It is live already, although nothing was deployed: from now on that is known. */
    private static Decision<PlaceSnapshot, PlaceEffect> record(PlaceSnapshot place, PlaceEvent.Recorded recorded,
            Instant moment) {
        if (place.live().isPresent() || place.open().stream().anyMatch(deployment -> deployment.status().open())) {
            return Decision
                    .refused("what is live there is known already, or on its way: recording is for the first day");
        }
        Optional<String> side = recorded.hosts().stream().flatMap(host -> host.side().stream()).findFirst();
        DeploymentState there = new DeploymentState(recorded.deployment(), recorded.version(), recorded.line(),
                recorded.order(), Kind.PROMOTION, false, DeploymentStatus.LIVE,
                recorded.hosts().stream().map(host -> HostState.there(host.name())).toList(),
                DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.NONE,
                Optional.empty(), Course.of(List.of(), new Course.Sides(side, Optional.empty()), 0), null);
        PlaceSnapshot now = place.plus(there).living(there);
        for (Plan.Host host : recorded.hosts()) {
            if (host.side().equals(side)) {
                now = now.having(new Consequence.HostHas(there.id(), host.name(), Consequence.Content.THIS_VERSION),
                        moment);
            }
        }
        return Decision.moved(now, List.of(new PlaceEffect.PassageOpened(there.id())));
    }

    /** What a host has of which nobody knew was told from what is on it. */
    private static Decision<PlaceSnapshot, PlaceEffect> found(PlaceSnapshot place, String host, long deployment,
            Instant now) {
        return Optional.ofNullable(place.hosts().get(host)).filter(has -> !has.known()).isEmpty()
                ? Decision.refused("what " + host + " has is known already")
                : Decision.moved(
                        place.having(new Consequence.HostHas(deployment, host, Consequence.Content.THIS_VERSION), now),
                        List.of());
    }

    /** What would be undone by its removal is taken away by it. */
    private static DeploymentState takenAway(DeploymentState deployment) {
        return deployment.wayBack() == DeploymentState.WayBack.REMOVAL
                ? deployment.goingBackBy(DeploymentState.WayBack.TAKEN_AWAY) : deployment;
    }

    private static Decision<PlaceSnapshot, PlaceEffect> settle(PlaceSnapshot place, Step step, Instant now) {
        List<PlaceEffect> effects = new ArrayList<>();
        return Decision.moved(taken(place, step, now, effects), effects);
    }

    /**
     * The place after a step of one of its deployments: what is live then, and what its hosts have; the rest follows.
     */
    private static PlaceSnapshot taken(PlaceSnapshot place, Step step, Instant moment, List<PlaceEffect> effects) {
        PlaceSnapshot now = place.with(step.deployment());
        for (Consequence each : step.effects()) {
            switch (each) {
                case Consequence.HostHas has -> now = now.having(has, moment);
                case PlaceEffect effect -> {
                    if (effect instanceof PlaceEffect.WentLive) {
                        now = now.living(step.deployment());
                    } else if (effect instanceof PlaceEffect.TakenBack) {
                        now = now.takenBack(step.deployment());
                    }
                    effects.add(effect);
                }
            }
        }
        return now;
    }
}
