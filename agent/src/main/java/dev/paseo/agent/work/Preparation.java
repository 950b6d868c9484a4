package dev.paseo.agent.work;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.Walls;
import dev.paseo.agent.ssh.RemoteWork;
import dev.paseo.agent.ssh.SshHost;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Brings what a piece of work needs: its source, what other stages left, the recipe's files, artifacts; once. */
final class Preparation {

    private static final int REACHED_WITHIN_SECONDS = 30;

    private final Assignment assignment;
    private final LeaseClient lease;
    private final Spool spool;
    private final Machine machine;
    private final Heartbeat heartbeat;
    private final Oversight oversight;

    Preparation(Assignment assignment, LeaseClient lease, Spool spool, Machine machine, Heartbeat heartbeat,
            Oversight oversight) {
        this.assignment = assignment;
        this.lease = lease;
        this.spool = spool;
        this.machine = machine;
        this.heartbeat = heartbeat;
        this.oversight = oversight;
    }

    /** The host, where commands are carried out on it over SSH; work that it must not do is refused first. */
    Optional<RemoteWork> reach() throws InterruptedException {
        machine.refuseUntrusted(assignment);
        boolean commands = !assignment.steps().isEmpty()
                || assignment.checks().stream().anyMatch(check -> check.kind() == Assignment.CheckKind.COMMAND);
        Optional<Assignment.Ssh> ssh = assignment.place().flatMap(Assignment.OfPlace::ssh).filter(there -> commands);
        return ssh.isPresent() ? Optional.of(reach(ssh.get())) : Optional.empty();
    }

    /** Does nothing where an earlier agent had done it. */
    void fill(Optional<StageFiles> files, Optional<RemoteWork> remote, Walls.Kind kind)
            throws InterruptedException, IOException {
        if (spool.isPrepared()) {
            return;
        }
        StringBuilder words = new StringBuilder();
        spool.clearFiles();
        if (files.isPresent()) {
            machine.sources().unpack(lease, assignment.variables().getOrDefault("PASEO_COMMIT", ""), spool.workspace(),
                    oversight);
            words.append("checked out ").append(assignment.variables().getOrDefault("PASEO_COMMIT", ""));
            files.get().fetch(words);
        }
        if (assignment.bundle().isPresent()) {
            bundle(assignment.bundle().get());
        }
        if (!words.isEmpty()) {
            new OwnWords(spool).sayBefore(words.toString());
        }
        for (Assignment.Artifact artifact : assignment.artifacts()) {
            take(artifact);
        }
        if (remote.isPresent()) {
            try {
                remote.get().bring(spool);
            } catch (IOException lost) {
                throw new CannotGoOn("the recipe could not be brought to the host: " + lost.getMessage());
            }
        }
        machine.walls().own(kind, spool);
        spool.prepared();
    }

    /** A host that cannot be reached is tried again for a while; one that shows another key is not. */
    private RemoteWork reach(Assignment.Ssh ssh) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(REACHED_WITHIN_SECONDS);
        while (true) {
            try {
                return new RemoteWork(ssh, assignment.work());
            } catch (SshHost.OtherKey changed) {
                throw new CannotGoOn(String.valueOf(changed.getMessage()));
            } catch (IOException away) {
                if (System.nanoTime() > until || heartbeat.wanted()) {
                    throw new CannotGoOn(String.valueOf(away.getMessage()));
                }
            }
            Thread.sleep(1000);
        }
    }

    private void bundle(String digest) throws IOException, InterruptedException {
        Path archive = spool.folder().resolve("bundle.tar");
        CannotGoOn.unlessSame("the recipe's files", digest,
                Patience.insist(() -> lease.bytes(digest, archive), oversight));
        try (InputStream bytes = Files.newInputStream(archive)) {
            Archives.unpack(bytes, spool.workspace());
        }
    }

    private void take(Assignment.Artifact artifact) throws IOException, InterruptedException {
        String digest = Patience.insist(() -> lease.bytes(artifact.digest(),
                spool.artifacts().resolve(artifact.name()).resolve(artifact.fileName())), oversight);
        CannotGoOn.unlessSame("artifact " + artifact.name(), artifact.digest(), digest);
    }
}
