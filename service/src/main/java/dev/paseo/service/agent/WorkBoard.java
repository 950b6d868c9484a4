package dev.paseo.service.agent;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.change.Changes;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.agent.Agents.Agent;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The work that is offered, taken under leases, and ended once. */
@Component
public class WorkBoard {

    private final WorkMapper mapper;
    private final Changes changes;
    private final Nudge nudge;
    private final Settings settings;
    private final Json json;

    WorkBoard(WorkMapper mapper, Changes changes, Nudge nudge, Settings settings, Json json) {
        this.mapper = mapper;
        this.changes = changes;
        this.nudge = nudge;
        this.settings = settings;
        this.json = json;
    }

    /** An attempt of a stage, as the board knows it. */
    public record Attempt(long run, String stage, String variant, int attempt) {}

    /** @param wants what the agent must offer */
    public void offerStage(Attempt stage, List<String> wants) {
        mapper.offerStage(stage.run(), stage.stage(), stage.variant(), stage.attempt(), json.write(wants),
                changes.now());
        nudge.afterCommit(Nudge.work(null));
    }

    public void offerOnHost(Assignment.Kind kind, long deployment, long host) {
        mapper.offerOnHost(kind.name(), deployment, host, changes.now());
        nudge.afterCommit(Nudge.work(mapper.nudged(host)));
    }

    /** The stage's work is not running: withdrawn where nobody took it, told to stop otherwise. */
    public void stopStage(Attempt stage, boolean atOnce) {
        mapper.stopStage(stage.run(), stage.stage(), stage.variant(), stage.attempt(),
                (atOnce ? Lease.Stop.AT_ONCE : Lease.Stop.GENTLY).name(), changes.now());
    }

    /** @param ofPlace what is done once for the place, wherever that is; else what is done on the host */
    public void stopOnHost(long deployment, long host, boolean ofPlace) {
        if (ofPlace) {
            mapper.stopOfPlace(deployment, Lease.Stop.GENTLY.name());
        } else {
            mapper.stopHost(deployment, host, Lease.Stop.GENTLY.name());
        }
        nudge.afterCommit(Nudge.work(mapper.nudged(host)));
    }

    /** What is done once for the place, and was offered to a host but not taken there, is offered to another. */
    public void offerElsewhere(long place, long from, long to) {
        if (from != to && mapper.moveOfPlace(place, from, to) > 0) {
            nudge.afterCommit(Nudge.work(mapper.nudged(to)));
        }
    }

    /**
     * Whether something is to be installed on a host of this place, and was not taken there. With the place locked it
     * stays so.
     */
    public boolean installOffered(long place, long host) {
        return mapper.installOffered(place, host) > 0;
    }

    /** What was to be installed on a host, and was not taken there, is not offered any longer. */
    public void withdrawInstall(long deployment, long host) {
        mapper.withdrawInstall(deployment, host, changes.now());
    }

    /** Work that was taken, with the token of its lease. */
    record Taken(Work work, String leaseToken) {}

    /** Takes the first offered work that fits, or none. To lose one to another agent is normal. */
    Optional<Taken> take(Agent agent, Owners owners) {
        List<Work> offered = mapper.offered(agent.id(), agent.hostId().orElse(null), json.write(agent.offers()),
                agent.walls().takeUntrusted());
        for (int at = 0; at < offered.size(); at++) {
            // Agents that are woken together begin at different ones of the oldest, and do not queue for one.
            Work work = offered.get((int) ((at + agent.id()) % offered.size()));
            Optional<Taken> taken = changes.in(() -> take(work, agent, owners.of(work)));
            if (taken.isPresent()) {
                return taken;
            }
        }
        return Optional.empty();
    }

    private Optional<Taken> take(Work offered, Agent agent, WorkOwner owner) {
        WorkOwner.Held held = owner.lock(offered);
        String token = Tokens.fresh("paseo-lease");
        Instant now = changes.now();
        Instant until = leaseEnd(now);
        if (mapper.lease(offered.id(), agent.id(), Sha256.hex(token), until, now) == 0) {
            return Optional.empty();
        }
        if (!held.taken(agent.name())) {
            mapper.end(offered.id(), offered.fence() + 1, "{}", now);
            return Optional.empty();
        }
        return Optional.of(new Taken(new Work(offered.id(), offered.kind(), offered.runId(), offered.stageId(),
                offered.deploymentId(), offered.hostId(),
                "leased", agent.id(), offered.fence() + 1, until, offered.stop(), offered.wants(), offered.untrusted(),
                offered.stage(), offered.variant(), offered.attempt()), token));
    }

    /** Work that was leased to this agent but never reached it: the answer was lost on its way. */
    Optional<Taken> sendAgain(Agent agent, List<Long> held) {
        return mapper.notBegun(agent.id()).stream().filter(work -> !held.contains(work.id())).findFirst()
                .flatMap(work -> {
                    String token = Tokens.fresh("paseo-lease");
                    return mapper.leaseAgain(work.id(), work.fence(), Sha256.hex(token), leaseEnd(changes.now())) == 1
                            ? mapper.byId(work.id()).map(again -> new Taken(again, token)) : Optional.<Taken>empty();
                });
    }

    private Instant leaseEnd(Instant now) {
        return now.plusSeconds(settings.leaseSeconds());
    }

    /** The work of a lease that is held now. */
    Optional<Work> ofLease(String token) {
        return mapper.ofLease(Sha256.hex(token));
    }

    /** @throws Refusal where no lease of this token is held now */
    Work held(String token) {
        return ofLease(token).orElseThrow(() -> Refusal.gone("This lease has ended"));
    }

    /** What is wanted of it; empty where the lease is over. */
    Optional<Lease.Stop> heartbeat(Work work, long fence) {
        if (mapper.extend(work.id(), fence, leaseEnd(changes.now())) == 0) {
            return Optional.empty();
        }
        return mapper.byId(work.id())
                .map(now -> now.stop().equals("no") ? Lease.Stop.NO : Lease.Stop.valueOf(now.stop()));
    }

    /** Ends it; false where this lease may not, true also when the same lease has ended it before. */
    boolean end(String leaseToken, Lease.Result result, Owners owners) {
        Optional<Work> known = mapper.everOfLease(Sha256.hex(leaseToken))
                .filter(work -> work.fence() == result.fence());
        if (known.isEmpty()) {
            return false;
        }
        Work work = known.get();
        return work.status().equals("ended") || changes.in(() -> {
            WorkOwner.Held held = owners.of(work).lock(work);
            if (mapper.end(work.id(), result.fence(), write(result.outcome(), result.reason()), changes.now()) == 0) {
                return false;
            }
            held.ended(result.outcome(), result.reason(), result.touched());
            return true;
        });
    }

    /** Gives up work whose lease ran out. */
    void giveUp(Work work, Owners owners) {
        String reason = "its agent was not heard of for " + settings.leaseSeconds() + " s";
        changes.run(() -> {
            WorkOwner.Held held = owners.of(work).lock(work);
            boolean over = mapper.byId(work.id())
                    .filter(now -> now.leaseUntil() != null && now.leaseUntil().isBefore(changes.now())).isPresent();
            if (over && mapper.end(work.id(), work.fence(), write(Lease.Outcome.LOST, reason), changes.now()) == 1) {
                held.ended(Lease.Outcome.LOST, reason, true);
            }
        });
    }

    /** Ends work for a host that nobody took. */
    void notTaken(Work work, Owners owners) {
        boolean stopped = !work.stop().equals("no");
        Lease.Outcome outcome = stopped ? Lease.Outcome.STOPPED : Lease.Outcome.FAILED;
        String reason = stopped ? "stopped before its agent took it"
                : "its agent did not take the work within " + settings.takeWithin().toSeconds()
                        + " s; is it running"
                        + (work.untrusted() ? ", and does it take work of branches that are not trusted?" : "?");
        changes.run(() -> {
            WorkOwner.Held held = owners.of(work).lock(work);
            if (mapper.endOffered(work.id(), write(outcome, reason), changes.now()) == 1) {
                held.ended(outcome, reason, false);
            }
        });
    }

    private String write(Lease.Outcome outcome, String reason) {
        return json.write(Map.of("outcome", outcome.name().toLowerCase(Locale.ROOT), "reason", reason));
    }

    List<Work> expired() {
        return mapper.expired(changes.now());
    }

    List<Work> notTaken() {
        return mapper.notTaken(changes.now().minus(settings.takeWithin()));
    }

    /**
     * Leases do not run while no service was at work, nor when the clock is moved; none ends later than a whole lease
     * from now.
     */
    void extendAll(java.time.Duration away) {
        mapper.extendAll(away.toNanos() / 1000, leaseEnd(changes.now()));
    }
}
