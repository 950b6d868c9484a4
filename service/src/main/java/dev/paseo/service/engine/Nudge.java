package dev.paseo.service.engine;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Wakes whoever waits for something to change: at once after a commit of this process, soon after one of another. */
@Component
public class Nudge {

    public static final String EFFECTS = "effects";
    public static final String EVENTS = "events";

    /** Offered work: of one host, or of all agents that run stages. */
    public static String work(@Nullable Long host) {
        return host == null ? "work" : "work on " + host;
    }

    /** New lines of one log. */
    public static String log(long work) {
        return "log " + work;
    }

    /** What several may wait for; there only while somebody does. */
    private static final class Channel {
        final ReentrantLock lock = new ReentrantLock();
        final Condition changed = lock.newCondition();
        final AtomicInteger listeners = new AtomicInteger();
        long count;
    }

    private final Map<String, Channel> channels = new ConcurrentHashMap<>();
    private volatile boolean closing;

    /** Wakes those who wait for this when the transaction under way has committed, or now where there is none. */
    public void afterCommit(String channel) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            now(channel);
            return;
        }
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                now(channel);
            }
        });
    }

    public void now(String name) {
        Channel channel = channels.get(name);
        if (channel == null) {
            return;
        }
        channel.lock.lock();
        try {
            channel.count++;
            channel.changed.signalAll();
        } finally {
            channel.lock.unlock();
        }
    }

    /** Wakes everyone: another replica has committed something. */
    void all() {
        channels.keySet().forEach(this::now);
    }

    /** The service is about to stop: nobody waits any longer. */
    void close() {
        closing = true;
        all();
    }

    public boolean isClosing() {
        return closing;
    }

    /** Begins to listen: no nudge from here on is missed. To be closed. */
    public Listening listen(String name) {
        Channel channel = channels.compute(name, (key, known) -> {
            Channel here = known == null ? new Channel() : known;
            here.listeners.incrementAndGet();
            return here;
        });
        return new Listening(name, channel);
    }

    /** Somebody who waits for a channel. */
    public final class Listening implements AutoCloseable {
        private final String name;
        private final Channel channel;
        private long seen;

        private Listening(String name, Channel channel) {
            this.name = name;
            this.channel = channel;
            this.seen = read();
        }

        private long read() {
            channel.lock.lock();
            try {
                return channel.count;
            } finally {
                channel.lock.unlock();
            }
        }

        /** Waits for a nudge since the last time, at most this long; whether there was one. */
        public boolean await(long millis) throws InterruptedException {
            channel.lock.lock();
            try {
                long left = TimeUnit.MILLISECONDS.toNanos(millis);
                while (channel.count == seen && left > 0 && !closing) {
                    left = channel.changed.awaitNanos(left);
                }
                boolean nudged = channel.count != seen;
                seen = channel.count;
                return nudged;
            } finally {
                channel.lock.unlock();
            }
        }

        @Override
        public void close() {
            channels.computeIfPresent(name, (key, here) -> here.listeners.decrementAndGet() == 0 ? null : here);
        }
    }
}
