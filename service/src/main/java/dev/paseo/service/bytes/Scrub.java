package dev.paseo.service.bytes;

import dev.paseo.service.clock.ServiceClock;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Reads every kept file again from time to time, as slowly as is set, on a thread of its own: damage is found before
 * the bytes are needed. Replicas share the work.
 */
@Component
class Scrub {

    private static final Logger LOG = LoggerFactory.getLogger(Scrub.class);
    private static final Duration IDLE = Duration.ofSeconds(10);
    private static final int LARGEST_BUFFER = 1 << 20;

    private final ByteMapper mapper;
    private final ByteStore store;
    private final Damage damage;
    private final ScrubSettings settings;
    private final ServiceClock clock;
    private final Counter bytes;
    private final Thread thread = Thread.ofPlatform().daemon().name("scrub").unstarted(this::run);

    Scrub(ByteMapper mapper, ByteStore store, Damage damage, ScrubSettings settings, Measures measures) {
        this.mapper = mapper;
        this.store = store;
        this.damage = damage;
        this.settings = settings;
        this.clock = measures.clock();
        this.bytes = Counter.builder("paseo.scrub.bytes").description("bytes of kept files that were read again")
                .register(measures.meters());
    }

    /** What time and figures come from. */
    @Component("scrubMeasures")
    record Measures(ServiceClock clock, MeterRegistry meters) {}

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        thread.start();
    }

    @PreDestroy
    void end() {
        thread.interrupt();
    }

    private void run() {
        while (!Thread.currentThread().isInterrupted()) {
            try {
                if (!next()) {
                    Thread.sleep(IDLE);
                }
            } catch (InterruptedException over) {
                return;
            } catch (IOException | RuntimeException failed) {
                LOG.warn("kept bytes are not looked over for the moment: {}", failed.toString());
                LOG.debug("while looking over kept bytes", failed);
                if (!slept(IDLE)) {
                    return;
                }
            }
        }
    }

    private static boolean slept(Duration length) {
        try {
            Thread.sleep(length);
            return true;
        } catch (InterruptedException over) {
            return false;
        }
    }

    /** Looks at the file that was not looked at for longest; false where none is due. */
    boolean next() throws IOException, InterruptedException {
        Optional<ByteMapper.DueRow> due = mapper.due(clock.now().minus(settings.every()));
        if (due.isEmpty()) {
            return false;
        }
        if (mapper.scrubbed(due.get().digest(), due.get().scrubbedAt(), clock.now()) == 1) {
            read(due.get().digest());
        }
        return true;
    }

    private void read(String digest) throws IOException, InterruptedException {
        long began = System.nanoTime();
        long read = 0;
        // Few long pauses cost less than many short ones.
        byte[] buffer = new byte[(int) Math.min(LARGEST_BUFFER, settings.rate().bytes())];
        try (InputStream in = store.open(digest)) {
            for (int some = in.read(buffer); some >= 0; some = in.read(buffer)) {
                read += some;
                bytes.increment(some);
                long due = began + (long) (read * 1e9 / settings.rate().bytes());
                Thread.sleep(Duration.ofNanos(Math.max(0, due - System.nanoTime())));
            }
            damage.mended(digest);
        } catch (DamagedBytes damaged) {
            damage.found(damaged);
        }
    }
}
