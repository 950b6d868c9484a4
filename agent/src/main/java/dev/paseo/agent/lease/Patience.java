package dev.paseo.agent.lease;

import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Asks again while the service is away, and only then: what fails on this machine would fail again. Its absence never
 * fails work by itself; the end of the lease does, and the end of the time that the work has.
 */
public final class Patience {

    private static final Logger LOG = LoggerFactory.getLogger(Patience.class);
    private static final long LONGEST_MILLIS = 1000;
    private static final long TOLD_EVERY_NANOS = 60_000_000_000L;

    private Patience() {}

    /** A request that may find the service away. */
    @FunctionalInterface
    public interface Request<T> {
        T ask() throws IOException, InterruptedException;
    }

    /** Asked before each further try: throws where it is of no use any more. */
    @FunctionalInterface
    public interface WhileWanted {
        void goOn(Away last) throws IOException;
    }

    public static <T> T insist(Request<T> request) throws IOException, InterruptedException {
        return insist(request, last -> {});
    }

    public static <T> T insist(Request<T> request, WhileWanted wanted) throws IOException, InterruptedException {
        long pause = 20;
        long told = System.nanoTime();
        while (true) {
            try {
                return request.ask();
            } catch (Away away) {
                wanted.goOn(away);
                if (System.nanoTime() - told > TOLD_EVERY_NANOS) {
                    told = System.nanoTime();
                    LOG.warn("the service is away, and is asked again: {}", away.getMessage());
                }
                Thread.sleep(pause);
                pause = Math.min(pause * 2, LONGEST_MILLIS);
            }
        }
    }
}
