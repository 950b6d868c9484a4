package dev.paseo.agent.work;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.StepReport;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;

/** Tells the service how far steps are, in their order, beside the work itself. */
final class Reports {

    private final LeaseClient lease;
    private final long fence;
    private final ExecutorService telling = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("reports").factory());

    Reports(LeaseClient lease, long fence) {
        this.lease = lease;
        this.fence = fence;
    }

    /** How one try of a step is. */
    record Told(StepReport.Status status, Optional<Integer> code, Instant began, Optional<Long> peakMemory) {}

    void tell(Assignment.Step step, int tried, Told told) {
        Optional<Instant> ended = told.status() == StepReport.Status.RUNNING ? Optional.empty() : Optional.of(now());
        StepReport report = new StepReport(fence, step.position(), tried, step.name(), told.status(), told.code(),
                told.began(), ended, told.peakMemory());
        telling.submit(() -> Patience.insist(() -> {
            lease.step(report);
            return true;
        }));
    }

    /** Waits until all is told. */
    void finish() throws InterruptedException {
        telling.shutdown();
        telling.awaitTermination(1, TimeUnit.HOURS);
    }

    static Instant now() {
        return Instant.now().truncatedTo(ChronoUnit.MICROS);
    }
}
