package dev.paseo.agent.work;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.process.StepProcess;
import dev.paseo.api.agent.Lease;
import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Says every second that the work goes on, and hears whether it should. */
final class Heartbeat implements Runnable, StepProcess.StopSignal {

    private static final Logger LOG = LoggerFactory.getLogger(Heartbeat.class);
    private static final long BEAT_MILLIS = 1000;

    private final LeaseClient lease;
    private final long fence;
    private volatile Lease.Stop stop = Lease.Stop.NO;
    private volatile boolean over;
    private volatile boolean ended;

    Heartbeat(LeaseClient lease, long fence) {
        this.lease = lease;
        this.fence = fence;
    }

    @Override
    public void run() {
        try {
            while (!ended && !over) {
                // A lease that was just taken is long enough for the first second.
                Thread.sleep(BEAT_MILLIS);
                beat();
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    private void beat() throws InterruptedException {
        try {
            stop = lease.heartbeat(fence);
        } catch (IOException away) {
            LOG.debug("the service is away: {}", away.toString());
        } catch (LeaseClient.LeaseOver gone) {
            over = true;
        } catch (LeaseClient.Refused refused) {
            LOG.warn("a heartbeat was refused: {}", refused.getMessage());
        }
    }

    void end() {
        ended = true;
    }

    /** Throws where the lease is over. */
    void refuseOver() {
        if (over) {
            throw LeaseClient.LeaseOver.whileWorking();
        }
    }

    @Override
    public boolean wanted() {
        return over || stop != Lease.Stop.NO;
    }

    @Override
    public boolean atOnce() {
        return over || stop == Lease.Stop.AT_ONCE;
    }
}
