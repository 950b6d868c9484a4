package dev.paseo.agent.work;

import dev.paseo.agent.log.LogShipper;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.StepProcess;
import dev.paseo.agent.process.Walls;
import dev.paseo.agent.ssh.RemoteWork;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.api.agent.StepReport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/** The steps of a piece of work, in processes here, or on a host that is reached over SSH. */
final class Steps {

    /** What is told while steps run. */
    record Telling(Heartbeat heartbeat, Reports reports, OwnWords words, Oversight oversight) {}

    private final Assignment assignment;
    private final Spool spool;
    private final Machine machine;
    private final Optional<RemoteWork> remote;
    private final Results results;
    private final Heartbeat heartbeat;
    private final Reports reports;
    private final OwnWords words;
    private final Oversight oversight;

    Steps(Assignment assignment, Spool spool, Machine machine, Optional<RemoteWork> remote, Telling telling) {
        this.assignment = assignment;
        this.spool = spool;
        this.machine = machine;
        this.remote = remote;
        this.results = new Results(assignment, spool);
        this.heartbeat = telling.heartbeat();
        this.reports = telling.reports();
        this.words = telling.words();
        this.oversight = telling.oversight();
    }

    /** All steps, one after another, until one does not pass. */
    Lease.Result all(LogShipper shipper) throws InterruptedException, IOException {
        for (Assignment.Step step : assignment.steps()) {
            oversight.does("in step " + step.position() + " (" + step.name() + ")");
            if (heartbeat.wanted() && !Files.exists(spool.step(step.position(), 1))) {
                return results.ended(Lease.Outcome.STOPPED, "stopped before step " + step.position());
            }
            Optional<Lease.Result> failed = tries(step, shipper);
            if (failed.isPresent()) {
                return failed.get();
            }
        }
        return results.ended(Lease.Outcome.PASSED, "");
    }

    /** A step, and where it fails, its further tries, each after a longer pause. */
    private Optional<Lease.Result> tries(Assignment.Step step, LogShipper shipper)
            throws InterruptedException, IOException {
        for (int tried = 1;; tried++) {
            Optional<Lease.Result> failed = step(step, tried, shipper);
            boolean last = tried > step.retries() || failed.isEmpty() || failed.get().outcome() != Lease.Outcome.FAILED
                    || heartbeat.wanted();
            if (last) {
                return failed;
            }
            if (!Files.exists(spool.step(step.position(), tried + 1))) {
                pause(tried);
            }
        }
    }

    private void pause(int tried) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(Math.min(60, 1L << (tried - 1)));
        while (System.nanoTime() < until && !heartbeat.wanted()) {
            Thread.sleep(100);
        }
    }

    /** Runs or adopts one try of a step; the result of the work where it did not pass. */
    Optional<Lease.Result> step(Assignment.Step step, int tried, LogShipper shipper)
            throws InterruptedException, IOException {
        Instant began = Reports.now();
        Path folder = spool.step(step.position(), tried);
        Optional<StepProcess> process = remote.isPresent() ? Optional.empty() : Optional.of(start(step, folder));
        reports.tell(step, tried,
                new Reports.Told(StepReport.Status.RUNNING, Optional.empty(), began, Optional.empty()));
        CountDownLatch ended = new CountDownLatch(1);
        shipper.follow(folder.resolve("output"), step.position(), ended);
        StepProcess.End end;
        long left = secondsLeft();
        try {
            end = process.isPresent()
                    ? process.get().await(Math.min(step.timeoutSeconds(), left), machine.limits(), spool.own(),
                            heartbeat)
                    : remote.orElseThrow().step(folder.getFileName().toString(), step, environment(),
                            folder.resolve("output"), machine.limits(), heartbeat);
        } finally {
            ended.countDown();
        }
        heartbeat.refuseOver();
        process.map(StepProcess::leftRunning).filter(names -> !names.isEmpty())
                .ifPresent(names -> words.add("step " + step.position() + " left running " + String.join(", ", names)
                        + ", which ended with it; what is to go on running is started by the host's own supervisor"));
        StepReport.Status status = switch (end) {
            case StepProcess.End.Exited(int code) when code == 0 -> StepReport.Status.PASSED;
            case StepProcess.End.Stopped() -> StepReport.Status.STOPPED;
            case StepProcess.End.Exited(int code) -> StepReport.Status.FAILED;
            case StepProcess.End.TimedOut() -> StepReport.Status.FAILED;
            case StepProcess.End.Unknown() -> StepReport.Status.FAILED;
            case StepProcess.End.TookTooMuch(String words) -> StepReport.Status.FAILED;
        };
        Optional<Integer> code = end instanceof StepProcess.End.Exited(int exit) ? Optional.of(exit) : Optional.empty();
        reports.tell(step, tried, new Reports.Told(status, code, began, process.flatMap(StepProcess::peakMemory)));
        return status == StepReport.Status.PASSED ? Optional.empty() : Optional.of(result(step, tried, end, left));
    }

    private StepProcess start(Assignment.Step step, Path folder) throws IOException {
        Walls.Box box = machine.walls().box(kind(assignment), spool, folder.resolve("script"), machine.limits());
        return StepProcess.start(folder, step.command(), spool.workspace(), box, environment(box));
    }

    private Lease.Result result(Assignment.Step step, int tried, StepProcess.End end, long left) {
        String which = "step " + step.position() + " (" + step.name() + ")";
        return switch (end) {
            case StepProcess.End.Exited(int code) -> results.ended(Lease.Outcome.FAILED,
                    which + " ended with exit status " + code + (tried > 1 ? ", in try " + tried : ""));
            case StepProcess.End.TimedOut() when left < step.timeoutSeconds() -> results.ended(Lease.Outcome.FAILED,
                    "the stage took longer than "
                            + assignment.stage().map(Assignment.Stage::timeoutSeconds).orElse(0L) + " s; it was in "
                            + which);
            case StepProcess.End.TimedOut() -> results.ended(Lease.Outcome.FAILED,
                    which + " took longer than " + step.timeoutSeconds() + " s");
            case StepProcess.End.Stopped() -> results.ended(Lease.Outcome.STOPPED,
                    "stopped in step " + step.position());
            case StepProcess.End.TookTooMuch(String words) -> results.ended(Lease.Outcome.FAILED, which + " " + words);
            case StepProcess.End.Unknown() -> results.ended(Lease.Outcome.LOST,
                    "step " + step.position() + " was started, but how it ended cannot be known");
        };
    }

    /** How long its steps may still take: what was fetched before them counts. */
    private long secondsLeft() throws IOException {
        long gone = spool.held().toSeconds();
        return assignment.stage().map(stage -> Math.max(1, stage.timeoutSeconds() - gone)).orElse(Long.MAX_VALUE);
    }

    static Walls.Kind kind(Assignment assignment) {
        if (assignment.stage().isPresent()) {
            return assignment.untrusted() ? Walls.Kind.UNTRUSTED_STAGE : Walls.Kind.STAGE;
        }
        return assignment.untrusted() ? Walls.Kind.UNTRUSTED_RECIPE : Walls.Kind.RECIPE;
    }

    private Map<String, String> environment(Walls.Box box) {
        Map<String, String> environment = new HashMap<>(machine.variables());
        environment.putAll(assignment.variables());
        environment.putAll(assignment.secrets());
        environment.put("PASEO_ARTIFACTS", box.artifacts().toString());
        box.home().ifPresent(home -> environment.put("HOME", home.toString()));
        return environment;
    }

    private Map<String, String> environment() throws IOException {
        Map<String, String> environment = new HashMap<>(assignment.variables());
        environment.putAll(assignment.secrets());
        environment.put("PASEO_ARTIFACTS", remote.orElseThrow().artifacts());
        environment.put("PASEO_HOST_FOLDER", remote.get().hostFolder());
        return environment;
    }
}
