package dev.paseo.agent.work;

import dev.paseo.agent.check.Checks;
import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.log.LogShipper;
import dev.paseo.agent.log.Masker;
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
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Carries out one piece of work: files, steps, artifacts, checks, result. Begun afresh or gone on with after a restart.
 */
public final class Work {

    private static final Logger LOG = LoggerFactory.getLogger(Work.class);

    private final Assignment assignment;
    private final LeaseClient lease;
    private final Spool spool;
    private final Machine machine;
    private final Heartbeat heartbeat;
    private final Reports reports;
    private final Optional<StageFiles> files;
    private final Checks checks = new Checks();
    /** The host, where it is reached over SSH. */
    private Optional<RemoteWork> remote = Optional.empty();
    /** The agent's own words after the last step. */
    private final StringBuilder later = new StringBuilder();
    private final Oversight oversight;
    private final Preparation preparation;

    public Work(Assignment assignment, LeaseClient lease, Spool spool, Machine machine) {
        this.assignment = assignment;
        this.lease = lease;
        this.spool = spool;
        this.machine = machine;
        this.heartbeat = new Heartbeat(lease, assignment.fence());
        this.oversight = new Oversight(assignment, spool, heartbeat);
        this.preparation = new Preparation(assignment, lease, spool, machine, heartbeat, oversight);
        this.reports = new Reports(lease, assignment.fence());
        this.files = assignment.stage().map(
                stage -> new StageFiles(stage, lease, spool, oversight, Masker.ofBytes(assignment.secrets().values())));
    }

    /** Returns when the result is delivered, or the lease is over. */
    public void carryOut() throws InterruptedException, IOException {
        Thread beating = Thread.ofPlatform().daemon().name("heartbeat-" + assignment.work()).start(heartbeat);
        try {
            Lease.Result result = watched();
            Patience.insist(() -> {
                lease.result(result);
                return true;
            });
        } catch (LeaseClient.LeaseOver over) {
            LOG.warn("work {} was given to nobody or another while it ran: what it started is ended",
                    assignment.work());
            spool.endProcesses();
        } finally {
            heartbeat.end();
            beating.interrupt();
        }
        spool.delete();
    }

    private Lease.Result watched() throws InterruptedException {
        try {
            return oversight.over(this::result);
        } catch (CannotGoOn left) {
            return ended(left.outcome(), String.valueOf(left.getMessage()));
        } catch (ExecutionException failed) {
            Throwable cause = Oversight.cause(failed);
            LOG.error("work {} failed in the agent", assignment.work(), cause);
            return ended(Lease.Outcome.FAILED, Local.words(oversight.doing(), cause));
        }
    }

    private Lease.Result result() throws InterruptedException, IOException {
        LogShipper shipper = new LogShipper(lease, new Masker(assignment.secrets().values()), spool.isFresh());
        Lease.Result result;
        try {
            remote = preparation.reach();
            preparation.fill(files, remote, kind());
            shipper.add(spool.words(true), 0);
            result = leave(steps(shipper), shipper);
        } catch (LeaseClient.LeaseOver over) {
            throw over;
        } catch (CannotGoOn reason) {
            result = failed(reason.outcome(), String.valueOf(reason.getMessage()));
        } catch (LeaseClient.Refused refused) {
            result = failed(Lease.Outcome.FAILED, String.valueOf(refused.getMessage()));
        } catch (IOException | RuntimeException local) {
            LOG.warn("work {} cannot go on", assignment.work(), local);
            result = failed(Lease.Outcome.FAILED, Local.words(oversight.doing(), local));
        }
        oversight.does("telling what came of it");
        remote.ifPresent(host -> {
            host.clear();
            host.close();
        });
        if (Files.exists(spool.words(false))) {
            shipper.add(spool.words(false), 0);
        }
        reports.finish();
        shipper.finish();
        heartbeat.refuseOver();
        return result;
    }

    private Lease.Result failed(Lease.Outcome outcome, String reason) {
        try {
            say(later + reason);
        } catch (IOException full) {
            LOG.warn("the last words of work {} cannot be kept: {}", assignment.work(), full.toString());
        }
        return ended(outcome, reason);
    }

    private Lease.Result ended(Lease.Outcome outcome, String reason) {
        String shown = new Masker(assignment.secrets().values()).mask(reason);
        return new Lease.Result(assignment.fence(), outcome, shown, touched());
    }

    private boolean touched() {
        return assignment.steps().stream()
                .anyMatch(step -> Files.exists(spool.step(step.position(), 1).resolve("started")));
    }

    private void say(String words) throws IOException {
        say(spool, false, words);
    }

    /** The agent's own words, before the steps or after them, in place of those that it said there. */
    static void say(Spool spool, boolean before, String words) throws IOException {
        Files.writeString(spool.words(before), words + "\n", StandardOpenOption.CREATE,
                StandardOpenOption.TRUNCATE_EXISTING);
    }

    private Lease.Result steps(LogShipper shipper) throws InterruptedException, IOException {
        for (Assignment.Step step : assignment.steps()) {
            oversight.does("in step " + step.position() + " (" + step.name() + ")");
            if (heartbeat.wanted() && !Files.exists(spool.step(step.position(), 1))) {
                return ended(Lease.Outcome.STOPPED, "stopped before step " + step.position());
            }
            Optional<Lease.Result> failed = tries(step, shipper);
            if (failed.isPresent()) {
                return failed.get();
            }
        }
        return ended(Lease.Outcome.PASSED, "");
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
    private Optional<Lease.Result> step(Assignment.Step step, int tried, LogShipper shipper)
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
        process.map(StepProcess::leftRunning).filter(names -> !names.isEmpty()).ifPresent(names -> later.append("step ")
                .append(step.position())
                .append(" left running ").append(String.join(", ", names))
                .append(", which ended with it; what is to go on running is started by the host's own supervisor\n"));
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
        Walls.Box box = machine.walls().box(kind(), spool, folder.resolve("script"), machine.limits());
        return StepProcess.start(folder, step.command(), spool.workspace(), box, environment(box));
    }

    private Walls.Kind kind() {
        if (assignment.stage().isPresent()) {
            return assignment.untrusted() ? Walls.Kind.UNTRUSTED_STAGE : Walls.Kind.STAGE;
        }
        return assignment.untrusted() ? Walls.Kind.UNTRUSTED_RECIPE : Walls.Kind.RECIPE;
    }

    private Lease.Result result(Assignment.Step step, int tried, StepProcess.End end, long left) {
        String which = "step " + step.position() + " (" + step.name() + ")";
        return switch (end) {
            case StepProcess.End.Exited(int code) -> ended(Lease.Outcome.FAILED,
                    which + " ended with exit status " + code + (tried > 1 ? ", in try " + tried : ""));
            case StepProcess.End.TimedOut() when left < step.timeoutSeconds() -> ended(Lease.Outcome.FAILED,
                    "the stage took longer than "
                            + assignment.stage().map(Assignment.Stage::timeoutSeconds).orElse(0L) + " s; it was in "
                            + which);
            case StepProcess.End.TimedOut() -> ended(Lease.Outcome.FAILED,
                    which + " took longer than " + step.timeoutSeconds() + " s");
            case StepProcess.End.Stopped() -> ended(Lease.Outcome.STOPPED, "stopped in step " + step.position());
            case StepProcess.End.TookTooMuch(String words) -> ended(Lease.Outcome.FAILED, which + " " + words);
            case StepProcess.End.Unknown() -> ended(Lease.Outcome.LOST,
                    "step " + step.position() + " was started, but how it ended cannot be known");
        };
    }

    /** How long its steps may still take: what was fetched before them counts. */
    private long secondsLeft() throws IOException {
        long gone = spool.held().toSeconds();
        return assignment.stage().map(stage -> Math.max(1, stage.timeoutSeconds() - gone)).orElse(Long.MAX_VALUE);
    }

    /** What the steps have left: reports also where one failed, the rest only where all passed; then the checks. */
    private Lease.Result leave(Lease.Result steps, LogShipper shipper) throws InterruptedException, IOException {
        oversight.does("packing and sending what it leaves");
        sayLater();
        Optional<StageFiles> leaving = files.or(this::ofTest);
        if (leaving.isPresent() && steps.outcome() == Lease.Outcome.FAILED) {
            leaving.get().reportsOfFailure().ifPresent(wrong -> later.append(wrong).append('\n'));
            sayLater();
        }
        if (steps.outcome() != Lease.Outcome.PASSED) {
            return steps;
        }
        if (leaving.isPresent()) {
            leaving.get().leave(later);
            sayLater();
        }
        oversight.does("checking");
        return check(shipper);
    }

    /** A test of what is live leaves reports, and nothing else. */
    private Optional<StageFiles> ofTest() {
        return assignment.place().map(Assignment.OfPlace::reports).filter(left -> !left.isEmpty())
                .map(left -> new StageFiles(
                        new Assignment.Stage(0, List.of(), List.of(), Optional.empty(), List.of(), List.of(), left),
                        lease, spool, oversight, Masker.ofBytes(assignment.secrets().values())));
    }

    private void sayLater() throws IOException {
        if (!later.isEmpty()) {
            say(later.toString().strip());
        }
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

    private Lease.Result check(LogShipper shipper) throws InterruptedException, IOException {
        long watched = assignment.place().map(Assignment.OfPlace::watchSeconds).orElse(0L);
        if (watched > 0) {
            return watch(watched);
        }
        int position = assignment.steps().size();
        for (Assignment.Check check : assignment.checks()) {
            position++;
            Assignment.Check asked = filled(check);
            if (check.kind() == Assignment.CheckKind.COMMAND) {
                Optional<Lease.Result> failed = step(new Assignment.Step(position, asked.target(), asked.target(),
                        Math.max(1, check.withinMillis() / 1000), 0), 1, shipper);
                if (failed.isPresent()) {
                    return failed.get();
                }
                continue;
            }
            Optional<String> wrong = checks.check(asked, heartbeat);
            heartbeat.refuseOver();
            if (heartbeat.wanted()) {
                return ended(Lease.Outcome.STOPPED, "stopped while checking");
            }
            if (wrong.isPresent()) {
                say(later + wrong.get());
                return ended(Lease.Outcome.FAILED, wrong.get());
            }
            later.append(words(asked)).append('\n');
        }
        sayLater();
        return ended(Lease.Outcome.PASSED, "");
    }

    private static String words(Assignment.Check check) {
        return switch (check.kind()) {
            case HTTP -> check.target() + " answered " + check.status()
                    + check.contains().map(text -> " with \"" + text + "\"").orElse("")
                    + (check.json().isEmpty() ? "" : " and " + check.json());
            case PORT -> check.target() + " takes connections";
            case METRIC -> check.target() + " tells " + check.limits().map(Assignment.Limits::name).orElse("")
                    + " within its limits";
            case COMMAND -> check.target();
        };
    }

    private Assignment.Check filled(Assignment.Check check) throws IOException {
        String folder = remote.isPresent() ? remote.get().hostFolder()
                : machine.variables().getOrDefault("PASEO_HOST_FOLDER", "");
        return new Assignment.Check(check.kind(), check.target().replace("{host.folder}", folder), check.status(),
                check.contains(), check.header(), check.json(),
                check.redirects(), check.limits(), check.withinMillis());
    }

    /** What is live is kept an eye on for so long; commands, which may cost much, are not repeated. */
    private Lease.Result watch(long seconds) throws InterruptedException, IOException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(Math.max(0, seconds - spool.age().toSeconds()));
        List<Assignment.Check> asked = assignment.checks().stream()
                .filter(check -> check.kind() != Assignment.CheckKind.COMMAND).toList();
        Optional<String> wrong = checks.watch(asked, until, heartbeat);
        heartbeat.refuseOver();
        if (heartbeat.wanted()) {
            return ended(Lease.Outcome.STOPPED, "stopped while watching");
        }
        later.append(wrong.orElse("answered well for " + seconds + " s")).append('\n');
        sayLater();
        return wrong.isPresent() ? ended(Lease.Outcome.FAILED, wrong.get()) : ended(Lease.Outcome.PASSED, "");
    }
}
