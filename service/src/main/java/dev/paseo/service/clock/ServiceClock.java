package dev.paseo.service.clock;

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

    private record Reading(Instant database, long nanos) {}

    private final ClockMapper database;
    private volatile Reading reading;

    ServiceClock(ClockMapper database) {
        this.database = database;
        this.reading = read();
    }

    private Reading read() {
        long before = System.nanoTime();
        Instant now = database.now();
        return new Reading(now, before + (System.nanoTime() - before) / 2);
    }

    @Scheduled(fixedDelay = 2000)
    void look() {
        reading = read();
    }

    /** Now, to the microsecond, as the database keeps it. */
    public Instant now() {
        Reading last = reading;
        return last.database().plusNanos(System.nanoTime() - last.nanos()).truncatedTo(ChronoUnit.MICROS);
    }
}
