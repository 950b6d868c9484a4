package dev.paseo.agent.work;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.log.LogShipper;
import dev.paseo.agent.log.Masker;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.StepProcess;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.api.agent.StepReport;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Carries out one piece of work: files, steps, artifacts, checks, result. Begun afresh or gone on with after a restart. */
public final class Work {

    private static final Logger LOG = LoggerFactory.getLogger(Work.class);

    /** Work that cannot go on, with the reason for people; before any step began nothing was changed. */
    private static final class CannotGoOn extends RuntimeException {
        CannotGoOn(String message) {
            super(message);
        }
    }

    private final Assignment assignment;
    private final LeaseClient lease;
    private final Spool spool;
    private final Map<String, String> machine;
    private final Sources sources;
    private final Heartbeat heartbeat;
    private final Reports reports;
    private final HttpChecks checks = new HttpChecks();

    /** @param machine variables of this machine: PATH, HOME and the like, and PASEO_HOST_FOLDER */
    public Work(Assignment assignment, LeaseClient lease, Spool spool, Map<String, String> machine, Sources sources) {
        this.assignment = assignment;
        this.lease = lease;
        this.spool = spool;
        this.machine = machine;
        this.sources = sources;
        this.heartbeat = new Heartbeat(lease, assignment.fence());
        this.reports = new Reports(lease, assignment.fence());
    }

    /** Returns when the result is delivered, or the lease is over. */
    public void carryOut() throws InterruptedException, IOException {
        Thread beating = Thread.ofVirtual().name("heartbeat-" + assignment.work()).start(heartbeat);
        try {
            Lease.Result result = result();
            Patience.insist(() -> {
                lease.result(result);
                return true;
            });
        } catch (LeaseClient.LeaseOver over) {
            LOG.warn("work {} was given to nobody or another while it ran: what it started is ended", assignment.work());
            spool.endProcesses();
        } finally {
            heartbeat.end();
            beating.interrupt();
        }
        spool.delete();
    }

    private Lease.Result result() throws InterruptedException, IOException {
        LogShipper shipper = new LogShipper(lease, new Masker(assignment.secrets().values()), spool.isFresh());
        Lease.Result result;
        try {
            prepare();
            shipper.add(spool.words(true), 0);
            result = steps(shipper);
        } catch (CannotGoOn | LeaseClient.Refused reason) {
            say(false, reason.getMessage());
            result = ended(Lease.Outcome.FAILED, String.valueOf(reason.getMessage()));
        }
        shipper.add(spool.words(false), 0);
        reports.finish();
        shipper.finish();
        heartbeat.refuseOver();
        return result;
    }

    private Lease.Result ended(Lease.Outcome outcome, String reason) {
        String shown = new Masker(assignment.secrets().values()).mask(reason);
        return new Lease.Result(assignment.fence(), outcome, shown, touched());
    }

    private boolean touched() {
        return assignment.steps().stream().anyMatch(step -> Files.exists(spool.step(step.position()).resolve("started")));
    }

    private void say(boolean before, String words) throws IOException {
        Files.writeString(spool.words(before), words + "\n", StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING);
    }

    private void prepare() throws InterruptedException, IOException {
        if (spool.isPrepared()) {
            return;
        }
        Patience.insist(() -> {
            spool.clearFiles();
            if (assignment.source()) {
                sources.unpack(lease, assignment.variables().getOrDefault("PASEO_COMMIT", ""), spool.workspace());
                say(true, "checked out " + assignment.variables().getOrDefault("PASEO_COMMIT", ""));
            }
            if (assignment.bundle().isPresent()) {
                bundle(assignment.bundle().get());
            }
            return true;
        });
        for (Assignment.Artifact artifact : assignment.artifacts()) {
            take(artifact);
        }
        spool.prepared();
    }

    private void bundle(String digest) throws IOException, InterruptedException {
        Path archive = spool.folder().resolve("bundle.tar");
        try (InputStream bytes = lease.bytes(digest)) {
            agree("the recipe's files", digest, Digests.write(bytes, archive));
        }
        try (InputStream bytes = Files.newInputStream(archive)) {
            Archives.unpack(bytes, spool.workspace());
        }
    }

    private void take(Assignment.Artifact artifact) throws InterruptedException {
        String digest = Patience.insist(() -> {
            try (InputStream bytes = lease.bytes(artifact.digest())) {
                return Digests.write(bytes, spool.artifacts().resolve(artifact.name()).resolve(artifact.fileName()));
            }
        });
        agree("artifact " + artifact.name(), artifact.digest(), digest);
    }

    private static void agree(String what, String wanted, String found) {
        if (!wanted.equals(found)) {
            throw new CannotGoOn(what + " arrived with the digest " + found + ", not " + wanted + ": nothing was run");
        }
    }

    private Lease.Result steps(LogShipper shipper) throws InterruptedException, IOException {
        for (Assignment.Step step : assignment.steps()) {
            if (heartbeat.wanted() && !Files.exists(spool.step(step.position()))) {
                return ended(Lease.Outcome.STOPPED, "stopped before step " + step.position());
            }
            Optional<Lease.Result> failed = step(step, shipper);
            if (failed.isPresent()) {
                return failed.get();
            }
        }
        for (Assignment.Keep keep : assignment.keep()) {
            keep(keep);
        }
        return check();
    }

    /** Runs or adopts one step; the result of the work where it did not pass. */
    private Optional<Lease.Result> step(Assignment.Step step, LogShipper shipper) throws InterruptedException, IOException {
        Instant began = Reports.now();
        StepProcess process = StepProcess.start(spool.step(step.position()), step.command(), spool.workspace(), environment());
        reports.tell(step, StepReport.Status.RUNNING, Optional.empty(), began);
        CountDownLatch ended = new CountDownLatch(1);
        shipper.follow(process.output(), step.position(), ended);
        StepProcess.End end;
        try {
            end = process.await(step.timeoutSeconds(), heartbeat);
        } finally {
            ended.countDown();
        }
        heartbeat.refuseOver();
        return switch (end) {
            case StepProcess.End.Exited(int code) when code == 0 -> {
                reports.tell(step, StepReport.Status.PASSED, Optional.of(code), began);
                yield Optional.empty();
            }
            case StepProcess.End.Exited(int code) -> failed(step, began, Optional.of(code), Lease.Outcome.FAILED,
                    "step " + step.position() + " (" + step.name() + ") ended with exit status " + code);
            case StepProcess.End.TimedOut() -> failed(step, began, Optional.empty(), Lease.Outcome.FAILED,
                    "step " + step.position() + " (" + step.name() + ") took longer than " + step.timeoutSeconds() + " s");
            case StepProcess.End.Stopped() -> failed(step, began, Optional.empty(), Lease.Outcome.STOPPED, "stopped in step " + step.position());
            case StepProcess.End.Unknown() -> failed(step, began, Optional.empty(), Lease.Outcome.LOST,
                    "step " + step.position() + " was started, but how it ended cannot be known");
        };
    }

    private Optional<Lease.Result> failed(Assignment.Step step, Instant began, Optional<Integer> code, Lease.Outcome outcome, String reason) {
        reports.tell(step, outcome == Lease.Outcome.STOPPED ? StepReport.Status.STOPPED : StepReport.Status.FAILED, code, began);
        return Optional.of(ended(outcome, reason));
    }

    private Map<String, String> environment() {
        Map<String, String> environment = new HashMap<>(machine);
        environment.putAll(assignment.variables());
        environment.putAll(assignment.secrets());
        environment.put("PASEO_ARTIFACTS", spool.artifacts().toString());
        return environment;
    }

    private void keep(Assignment.Keep keep) throws InterruptedException, IOException {
        try {
            Path file = KeptFile.find(spool.workspace(), keep.name(), keep.path());
            String digest = Digests.of(file);
            agree("artifact " + keep.name(), digest, Patience.insist(() -> lease.output(keep.name(), file)));
        } catch (KeptFile.NotOne wrong) {
            throw new CannotGoOn(wrong.getMessage());
        }
    }

    private Lease.Result check() throws InterruptedException, IOException {
        StringBuilder words = new StringBuilder();
        for (Assignment.HttpCheck check : assignment.checks()) {
            Assignment.HttpCheck filled = new Assignment.HttpCheck(check.address().replace("{host.folder}",
                    machine.getOrDefault("PASEO_HOST_FOLDER", "")), check.status(), check.contains(), check.withinMillis());
            Optional<String> wrong = checks.check(filled, heartbeat);
            heartbeat.refuseOver();
            if (heartbeat.wanted()) {
                return ended(Lease.Outcome.STOPPED, "stopped while checking");
            }
            if (wrong.isPresent()) {
                say(false, words + wrong.get());
                return ended(Lease.Outcome.FAILED, wrong.get());
            }
            words.append(filled.address()).append(" answered ").append(filled.status())
                    .append(filled.contains().map(text -> " with \"" + text + "\"").orElse("")).append('\n');
        }
        if (!words.isEmpty()) {
            say(false, words.toString().strip());
        }
        return ended(Lease.Outcome.PASSED, "");
    }
}
