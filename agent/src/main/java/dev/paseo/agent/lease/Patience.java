package dev.paseo.agent.lease;

import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Asks again while the service is away: its absence never fails work, only the end of the lease does. */
public final class Patience {

    private static final Logger LOG = LoggerFactory.getLogger(Patience.class);
    private static final long LONGEST_MILLIS = 1000;

    private Patience() {}

    /** A request that may find the service away. */
    @FunctionalInterface
    public interface Request<T> {
        T ask() throws IOException, InterruptedException;
    }

    public static <T> T insist(Request<T> request) throws InterruptedException {
        long pause = 20;
        while (true) {
            try {
                return request.ask();
            } catch (IOException away) {
                LOG.debug("the service is away, again in {} ms: {}", pause, away.toString());
                Thread.sleep(pause);
                pause = Math.min(pause * 2, LONGEST_MILLIS);
            }
        }
    }
}
