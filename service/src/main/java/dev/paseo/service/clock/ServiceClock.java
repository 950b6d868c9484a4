package dev.paseo.service.clock;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * The one clock: the database's time plus a stored offset that only grows, so that all replicas agree. Between two
 * looks at the database it goes on by the processor's own monotonic clock.
 */
@Component
public class ServiceClock {

    private record Reading(Instant database, Duration moved, long nanos) {}

    private final ClockMapper database;
    private volatile Reading reading;

    ServiceClock(ClockMapper database) {
        this.database = database;
        this.reading = read();
    }

    private Reading read() {
        long before = System.nanoTime();
        ClockMapper.NowRow now = database.now();
        return new Reading(now.at(), Duration.of(now.moved(), ChronoUnit.MICROS),
                before + (System.nanoTime() - before) / 2);
    }

    @Scheduled(fixedDelay = 2000)
    void look() {
        reading = read();
    }

    /** Moves the time of all replicas forward; the others see it within two seconds. */
    public void forward(Duration by) {
        database.forward(by.toNanos() / 1000);
        reading = read();
    }

    /** The time outside, without what this one was moved forward: what others stamp their messages with. */
    public Instant outside() {
        return now().minus(reading.moved());
    }

    /**
     * A moment by the clock of another machine, as this one tells it: moved as this one was, and never in the future.
     */
    public Instant told(Instant elsewhere) {
        Instant now = now();
        Instant here = elsewhere.plus(reading.moved());
        return here.isAfter(now) ? now : here;
    }

    /** Now, to the microsecond, as the database keeps it. */
    public Instant now() {
        Reading last = reading;
        return last.database().plusNanos(System.nanoTime() - last.nanos()).truncatedTo(ChronoUnit.MICROS);
    }
}
