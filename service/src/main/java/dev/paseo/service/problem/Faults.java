package dev.paseo.service.problem;

import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import jakarta.annotation.PreDestroy;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;
import org.springframework.stereotype.Component;

/**
 * Errors that no part of the service can go on after as if nothing had been: logged, counted as {@code paseo.faults},
 * and told by health until the next start. Where the process cannot be trusted any more (no memory, code that is
 * missing, a thread of ours that ended) it ends with status 70, and the service manager starts it again.
 */
@Component("faults")
public class Faults implements HealthIndicator {

    private static final Logger LOG = LoggerFactory.getLogger(Faults.class);
    /** EX_SOFTWARE of sysexits. */
    private static final int STATUS = 70;

    private final Counter counter;
    private final Runnable end;
    private volatile Optional<String> last = Optional.empty();

    @Autowired
    Faults(MeterRegistry meters) {
        this(meters, () -> Runtime.getRuntime().halt(STATUS));
        Thread.setDefaultUncaughtExceptionHandler((thread, error) -> uncaught(thread.getName(), error));
    }

    Faults(MeterRegistry meters, Runnable end) {
        this.counter = Counter.builder("paseo.faults").description("errors that no part of the service can go on after")
                .register(meters);
        this.end = end;
    }

    @PreDestroy
    void forget() {
        Thread.setDefaultUncaughtExceptionHandler(null);
    }

    /** Something went wrong where others go on. Ends the process where they cannot. */
    public void met(String where, Error error) {
        boolean fatal = error instanceof VirtualMachineError && !(error instanceof StackOverflowError)
                || error instanceof LinkageError;
        told(where, error, fatal);
    }

    /** A thread of the service ended: what it did is done by nobody. */
    void uncaught(String thread, Throwable error) {
        told("the thread " + thread, error, error instanceof Error);
    }

    private void told(String where, Throwable error, boolean fatal) {
        try {
            last = Optional.of(where + ": " + error);
            counter.increment();
            LOG.error("{} met an error{}", where, fatal ? "; the service ends, to be started again" : "", error);
        } finally {
            if (fatal) {
                end.run();
            }
        }
    }

    @Override
    public Health health() {
        return last.map(what -> Health.down().withDetail("error", what).build()).orElseGet(() -> Health.up().build());
    }

    /** What is done again and again tells its errors here too. */
    @Configuration
    static class Scheduling {

        /**
         * More than there are schedules: none ever waits for another, such as for a mail server that does not answer.
         */
        private static final int AT_ONCE = 64;

        @Bean
        ThreadPoolTaskScheduler taskScheduler(Faults faults) {
            ThreadPoolTaskScheduler scheduler = new ThreadPoolTaskScheduler();
            scheduler.setPoolSize(AT_ONCE);
            scheduler.setVirtualThreads(true);
            scheduler.setThreadNamePrefix("schedule-");
            scheduler.setErrorHandler(error -> {
                if (error instanceof Error fatal) {
                    faults.met("a schedule", fatal);
                } else {
                    LOG.error("a schedule failed, and is tried again", error);
                }
            });
            return scheduler;
        }
    }
}
