package dev.paseo.agent.work;

import dev.paseo.agent.check.Checks;
import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.log.LogShipper;
import dev.paseo.agent.log.Masker;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.ssh.RemoteWork;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
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
    private final OwnWords words;
    private final Results results;
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
        this.words = new OwnWords(spool);
        this.results = new Results(assignment, spool);
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
            LOG.warn("the lease of work {} ended while it ran: its processes are stopped",
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
            return results.ended(left.outcome(), String.valueOf(left.getMessage()));
        } catch (ExecutionException failed) {
            Throwable cause = Oversight.cause(failed);
            LOG.error("work {} failed in the agent", assignment.work(), cause);
            return results.ended(Lease.Outcome.FAILED, Local.words(oversight.doing(), cause));
        }
    }

    private Lease.Result result() throws InterruptedException, IOException {
        LogShipper shipper = new LogShipper(lease, new Masker(assignment.secrets().values()), spool.isFresh());
        Lease.Result result;
        try {
            remote = preparation.reach();
            preparation.fill(files, remote, Steps.kind(assignment));
            shipper.add(spool.words(true), 0);
            Steps steps = new Steps(assignment, spool, machine, remote,
                    new Steps.Telling(heartbeat, reports, words, oversight));
            result = leave(steps, steps.all(shipper), shipper);
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
            words.say(reason);
        } catch (IOException full) {
            LOG.warn("the last lines of the log of work {} cannot be kept: {}", assignment.work(), full.toString());
        }
        return results.ended(outcome, reason);
    }

    /** What the steps have left: reports also where one failed, the rest only where all passed; then the checks. */
    private Lease.Result leave(Steps steps, Lease.Result result, LogShipper shipper)
            throws InterruptedException, IOException {
        oversight.does("packing and sending what it leaves");
        words.say();
        Optional<StageFiles> leaving = files.or(this::ofTest);
        if (leaving.isPresent() && result.outcome() == Lease.Outcome.FAILED) {
            leaving.get().reportsOfFailure().ifPresent(wrong -> words.add(wrong));
            words.say();
        }
        if (result.outcome() != Lease.Outcome.PASSED) {
            return result;
        }
        if (leaving.isPresent()) {
            leaving.get().leave(words.after());
            words.say();
        }
        oversight.does("checking");
        return check(steps, shipper);
    }

    /** A test of what is live leaves reports, and nothing else. */
    private Optional<StageFiles> ofTest() {
        return assignment.place().map(Assignment.OfPlace::reports).filter(left -> !left.isEmpty())
                .map(left -> new StageFiles(
                        new Assignment.Stage(0, List.of(), List.of(), Optional.empty(), List.of(), List.of(), left),
                        lease, spool, oversight, Masker.ofBytes(assignment.secrets().values())));
    }

    private Lease.Result check(Steps steps, LogShipper shipper) throws InterruptedException, IOException {
        long watched = assignment.place().map(Assignment.OfPlace::watchSeconds).orElse(0L);
        if (watched > 0) {
            return watch(watched);
        }
        int position = assignment.steps().size();
        for (Assignment.Check check : assignment.checks()) {
            position++;
            Assignment.Check asked = filled(check);
            if (check.kind() == Assignment.CheckKind.COMMAND) {
                Optional<Lease.Result> failed = steps.step(new Assignment.Step(position, asked.target(), asked.target(),
                        Math.max(1, check.withinMillis() / 1000), 0), 1, shipper);
                if (failed.isPresent()) {
                    return failed.get();
                }
                continue;
            }
            Optional<String> wrong = checks.check(asked, heartbeat);
            heartbeat.refuseOver();
            if (heartbeat.wanted()) {
                return results.ended(Lease.Outcome.STOPPED, "stopped while checking");
            }
            if (wrong.isPresent()) {
                words.say(wrong.get());
                return results.ended(Lease.Outcome.FAILED, wrong.get());
            }
            words.add(words(asked));
        }
        words.say();
        return results.ended(Lease.Outcome.PASSED, "");
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
            return results.ended(Lease.Outcome.STOPPED, "stopped while watching");
        }
        words.add(wrong.orElse("answered well for " + seconds + " s"));
        words.say();
        return wrong.isPresent() ? results.ended(Lease.Outcome.FAILED, wrong.get())
                : results.ended(Lease.Outcome.PASSED, "");
    }
}
