package dev.paseo.service.engine;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Semaphore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Work that waits in rows until it is due: each row is taken by one replica, so many are in hand at once, and whoever
 * takes waits for none of them.
 */
public final class DueWork<R> {

    private static final Logger LOG = LoggerFactory.getLogger(DueWork.class);
    private static final int MOST_DOUBLINGS = 10;

    /** What kind of work it is. */
    public interface Ways<R> {

        /** The rows that are due, the longest first; a few of them. */
        List<R> due(Instant now);

        /** Whether this caller has it now; another may have it if this one does not come back. */
        boolean claim(R row, Instant now);

        /** Does it, and writes down what came of it, a failure too. */
        void perform(R row);
    }

    private final String name;
    private final Semaphore room;
    private final Ways<R> ways;

    /** @param atOnce how many are in hand at once, at least 1 */
    public DueWork(String name, int atOnce, Ways<R> ways) {
        this.name = name;
        this.room = new Semaphore(atOnce);
        this.ways = ways;
    }

    /** Takes what is due, as far as there is room, and returns at once. */
    public void take(Instant now) {
        if (room.availablePermits() == 0) {
            return;
        }
        for (R row : ways.due(now)) {
            if (!room.tryAcquire()) {
                return;
            }
            boolean mine = false;
            try {
                mine = ways.claim(row, now);
            } finally {
                if (!mine) {
                    room.release();
                }
            }
            if (mine) {
                Thread.ofVirtual().name(name).start(() -> perform(row));
            }
        }
    }

    private void perform(R row) {
        try {
            ways.perform(row);
        } catch (RuntimeException failed) {
            LOG.warn("what came of {} {} was not written down: {}", name, row, failed.toString());
        } finally {
            room.release();
        }
    }

    /**
     * How long until it is tried again: twice as long after each failure.
     *
     * @param failures in a row, this one counted
     */
    public static Duration pause(Duration first, int failures, Duration longest) {
        Duration pause = first.multipliedBy(1L << Math.clamp(failures, 0, MOST_DOUBLINGS));
        return pause.compareTo(longest) > 0 ? longest : pause;
    }
}
