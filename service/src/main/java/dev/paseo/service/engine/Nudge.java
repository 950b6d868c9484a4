package dev.paseo.service.engine;

import java.util.EnumMap;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Wakes whoever waits for something to change: at once after a commit of this process, soon after one of another. */
@Component
public class Nudge {

    /** What somebody may wait for. */
    public enum Topic { EFFECTS, WORK, EVENTS, LOGS }

    private final ReentrantLock lock = new ReentrantLock();
    private final Map<Topic, Condition> changed = new EnumMap<>(Topic.class);
    private final Map<Topic, Long> counts = new EnumMap<>(Topic.class);
    private volatile boolean closing;

    Nudge() {
        for (Topic topic : Topic.values()) {
            changed.put(topic, lock.newCondition());
            counts.put(topic, 0L);
        }
    }

    /** Wakes those who wait for this when the transaction under way has committed, or now where there is none. */
    public void afterCommit(Topic topic) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            now(topic);
            return;
        }
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                now(topic);
            }
        });
    }

    public void now(Topic topic) {
        lock.lock();
        try {
            counts.merge(topic, 1L, Long::sum);
            changed.get(topic).signalAll();
        } finally {
            lock.unlock();
        }
    }

    /** Wakes everyone: another replica has committed something. */
    void all() {
        for (Topic topic : Topic.values()) {
            now(topic);
        }
    }

    /** The service is about to stop: nobody waits any longer. */
    void close() {
        closing = true;
        all();
    }

    public boolean isClosing() {
        return closing;
    }

    /** How often it was nudged; pass it to {@link #await} so that no nudge is missed in between. */
    public long seen(Topic topic) {
        lock.lock();
        try {
            return counts.get(topic);
        } finally {
            lock.unlock();
        }
    }

    /** Waits for a nudge after {@code seen}, at most this long. */
    public void await(Topic topic, long seen, long millis) throws InterruptedException {
        lock.lock();
        try {
            long left = TimeUnit.MILLISECONDS.toNanos(millis);
            while (counts.get(topic) == seen && left > 0 && !closing) {
                left = changed.get(topic).awaitNanos(left);
            }
        } finally {
            lock.unlock();
        }
    }
}
