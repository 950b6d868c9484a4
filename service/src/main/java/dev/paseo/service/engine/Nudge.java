package dev.paseo.service.engine;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Wakes whoever waits for something to change: at once after a commit of this process, soon after one of another. */
@Component
public class Nudge {

    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    private long count;
    private volatile boolean closing;

    /** Wakes everyone when the transaction under way has committed, or now where there is none. */
    public void afterCommit() {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            now();
            return;
        }
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                now();
            }
        });
    }

    public void now() {
        lock.lock();
        try {
            count++;
            changed.signalAll();
        } finally {
            lock.unlock();
        }
    }

    /** The service is about to stop: nobody waits any longer. */
    void close() {
        closing = true;
        now();
    }

    public boolean isClosing() {
        return closing;
    }

    /** How often it was nudged; pass it to {@link #await} so that no nudge is missed in between. */
    public long seen() {
        lock.lock();
        try {
            return count;
        } finally {
            lock.unlock();
        }
    }

    /** Waits for a nudge after {@code seen}, at most this long. */
    public void await(long seen, long millis) throws InterruptedException {
        lock.lock();
        try {
            long left = TimeUnit.MILLISECONDS.toNanos(millis);
            while (count == seen && left > 0 && !closing) {
                left = changed.awaitNanos(left);
            }
        } finally {
            lock.unlock();
        }
    }
}
