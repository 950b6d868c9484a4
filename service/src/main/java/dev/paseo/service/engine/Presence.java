package dev.paseo.service.engine;

import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** Remembers when a replica was last at work, so that leases do not run while none was. */
@Component
public class Presence {

    private static final Duration GAP = Duration.ofSeconds(10);

    /** For so long a replica that is gone is still told of. */
    private static final Duration TOLD = Duration.ofDays(1);

    private final String name = host() + ", process " + ProcessHandle.current().pid();
    private final Instant started = Instant.ofEpochMilli(ManagementFactory.getRuntimeMXBean().getStartTime());
    private final EngineMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;

    Presence(EngineMapper mapper, Transactions transactions, ServiceClock clock) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
    }

    private static String host() {
        try {
            return Shortened.to(InetAddress.getLocalHost().getHostName(), 120);
        } catch (UnknownHostException unnamed) {
            return "an unnamed machine";
        }
    }

    /** Says that a replica is at work; returns for how long none had been, zero in the ordinary course. */
    public Duration alive() {
        return transactions.in(() -> {
            Instant now = clock.now();
            Instant last = mapper.lastAlive();
            // By the clock that nobody moves: whoever moves the other extends the leases.
            Duration away = Duration.between(mapper.lastOutside(), clock.outside());
            if (away.compareTo(GAP) > 0) {
                mapper.absent(last, now);
            }
            mapper.alive(now, clock.outside());
            mapper.serves(name, started, clock.outside());
            mapper.forget(clock.outside().minus(TOLD));
            return away.compareTo(GAP) > 0 ? away : Duration.ZERO;
        });
    }
}
