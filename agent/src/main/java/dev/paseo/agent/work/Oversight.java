package dev.paseo.agent.work;

import dev.paseo.agent.lease.Away;
import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.process.Spool;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Watches over one piece of work: whatever it hangs in, it ends when its time is over, or when it is told to stop at
 * once.
 */
final class Oversight implements Patience.WhileWanted {

    private static final Logger LOG = LoggerFactory.getLogger(Oversight.class);

    /** How long what is told to stop may take to come to an end by itself. */
    private static final Duration STOPS_WITHIN = Duration.ofSeconds(5);
    /** How long what is over its time may take: a step's end, and the reports of what failed. */
    private static final Duration ENDS_WITHIN = Duration.ofSeconds(30);
    /** What a host's task may take beside its own limits: fetching, and bringing it there. */
    private static final Duration BESIDE = Duration.ofMinutes(30);
    private static final long LOOK_MILLIS = 200;

    private final Assignment assignment;
    private final Spool spool;
    private final Heartbeat heartbeat;
    private final Instant began = Instant.now();
    private volatile String doing = "fetching its files";
    private volatile boolean fetching = true;

    Oversight(Assignment assignment, Spool spool, Heartbeat heartbeat) {
        this.assignment = assignment;
        this.spool = spool;
        this.heartbeat = heartbeat;
    }

    /** What the work does from now on, such as {@code checking}. */
    void does(String what) {
        doing = what;
        fetching = false;
    }

    String doing() {
        return doing;
    }

    /** On a thread of its own, which is left behind where it does not come to an end. */
    Lease.Result over(Callable<Lease.Result> work) throws InterruptedException, ExecutionException {
        FutureTask<Lease.Result> carried = new FutureTask<>(work);
        Thread thread = Thread.ofPlatform().daemon().name("doing-" + assignment.work()).start(carried);
        Optional<Instant> asked = Optional.empty();
        while (true) {
            try {
                return carried.get(LOOK_MILLIS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException goesOn) {
                asked = isToEnd() ? asked.or(() -> Optional.of(Instant.now())) : Optional.empty();
                Optional<CannotGoOn> over = over(asked);
                if (over.isPresent()) {
                    thread.interrupt();
                    endProcesses();
                    throw over.get();
                }
            }
        }
    }

    /** What is only being fetched need not come to an end first. */
    private boolean isToEnd() {
        return heartbeat.atOnce() || heartbeat.wanted() && fetching;
    }

    private Optional<CannotGoOn> over(Optional<Instant> asked) {
        if (asked.filter(since -> since.plus(STOPS_WITHIN).isBefore(Instant.now())).isPresent()) {
            return Optional.of(CannotGoOn.stopped("stopped while " + doing));
        }
        return isOverTime(ENDS_WITHIN) ? Optional.of(new CannotGoOn(tookLonger())) : Optional.empty();
    }

    /** In this life of the agent it always has a while: what ended while no agent was there is not taken for late. */
    private boolean isOverTime(Duration grace) {
        return held().compareTo(limit().plus(grace)) > 0 && Duration.between(began, Instant.now()).compareTo(grace) > 0;
    }

    private String tookLonger() {
        return (assignment.stage().isPresent() ? "the stage" : "the work on the host") + " took longer than "
                + (limit().toMinutes() < 2 ? limit().toSeconds() + " s" : limit().toMinutes() + " min") + "; it was "
                + doing;
    }

    private Duration held() {
        try {
            return spool.held();
        } catch (IOException gone) {
            return Duration.ZERO;
        }
    }

    /** For a stage what its file says; for a host's task all its parts together, and what lies beside them. */
    private Duration limit() {
        return assignment.stage().map(stage -> Duration.ofSeconds(stage.timeoutSeconds())).orElseGet(() -> {
            long steps = assignment.steps().stream()
                    .mapToLong(step -> (step.timeoutSeconds() + 60L) * (step.retries() + 1)).sum();
            long checks = assignment.checks().stream().mapToLong(check -> check.withinMillis() / 1000 + 60).sum();
            return BESIDE
                    .plusSeconds(steps + checks + assignment.place().map(Assignment.OfPlace::watchSeconds).orElse(0L));
        });
    }

    private void endProcesses() throws InterruptedException {
        try {
            spool.endProcesses();
        } catch (IOException failed) {
            LOG.error("processes of work {} cannot be stopped", assignment.work(), failed);
        }
    }

    @Override
    public void goOn(Away last) {
        heartbeat.refuseOver();
        if (isToEnd()) {
            throw CannotGoOn.stopped("stopped while " + doing + "; the service did not answer: " + last.getMessage());
        }
        if (isOverTime(Duration.ZERO)) {
            throw new CannotGoOn(tookLonger() + ", and the service did not answer: " + last.getMessage());
        }
    }

    /** What went wrong in the work, as its cause is. */
    static Throwable cause(ExecutionException failed) {
        if (failed.getCause() instanceof LeaseClient.LeaseOver over) {
            throw over;
        }
        return failed.getCause();
    }
}
