package dev.paseo.agent.ssh;

import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.StepProcess;
import dev.paseo.agent.process.StepProcess.End;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * One piece of work on a host that is reached over SSH. What is on the host about it lies in a folder of its own, so
 * that a connection, or an agent, that was lost is followed by another that goes on: a try of a step is started only by
 * the wrapper that creates the file {@code started}.
 */
public final class RemoteWork implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(RemoteWork.class);
    private static final String WRAPPER = """
            cd "$2" || exit 1
            set -C
            { echo $$ >"$1/started"; } 2>/dev/null || exit 0
            set +C
            . "$1/environment"
            sh -e "$1/script" </dev/null >>"$1/output" 2>&1
            echo $? >"$1/exit"
            """;
    /**
     * Ends the processes of its group, and, where the host has /proc, those that carry its mark in their environment:
     * they may have left the group. It looks three times, since a process that is about to become another program shows
     * no environment for a moment.
     */
    private static final String END = """
            mark=%1$s
            group=$(cat %2$s)
            carrying() { grep -lszxF -- "$mark" /proc/[0-9]*/environ 2>/dev/null | sed 's|/proc/||; s|/environ||'; }
            left() { kill -0 -- "-$group" 2>/dev/null || [ -n "$(carrying)" ]; }
            signal() { kill "-$1" -- "-$group" $(carrying) 2>/dev/null; }
            grace=%3$d
            [ "$grace" = 0 ] || signal TERM
            while [ "$grace" -gt 0 ] && left; do sleep 1; grace=$((grace - 1)); done
            for again in 1 2 3; do if left; then signal KILL; fi; sleep 0.1 2>/dev/null || sleep 1; done
            true
            """;
    private static final String MARK = "PASEO_STEP_MARK";
    private static final int GRACE_SECONDS = 10;
    private static final long LOOK_MILLIS = 300;

    private final Assignment.Ssh ssh;
    private final String folder;
    private Optional<SshHost> host = Optional.empty();

    public RemoteWork(Assignment.Ssh ssh, long work) throws IOException {
        this.ssh = ssh;
        this.host = Optional.of(SshHost.connect(ssh));
        this.folder = host.get().folder() + "/.paseo/work-" + work;
    }

    private SshHost host() throws IOException {
        if (host.isEmpty()) {
            host = Optional.of(SshHost.connect(ssh));
        }
        return host.get();
    }

    /** A connection that broke is opened anew the next time. */
    private void lost(IOException why) {
        LOG.info("{} is away: {}", ssh.address(), why.getMessage());
        host.ifPresent(SshHost::close);
        host = Optional.empty();
    }

    /** Where the recipe works on the host. */
    public String hostFolder() throws IOException {
        return host().folder();
    }

    public String artifacts() {
        return folder + "/artifacts";
    }

    /** Brings what the recipe needs to the host. */
    public void bring(Spool spool) throws IOException {
        host().run("umask 077; mkdir -p " + SshHost.quote(folder));
        host().copy(spool.workspace(), folder + "/workspace");
        host().copy(spool.artifacts(), artifacts());
    }

    /** Runs a try of a step, or goes on with it where it was started before; its output is copied to {@code output}. */
    public End step(String name, Assignment.Step step, Map<String, String> environment, Path output, Limits limits,
            StepProcess.StopSignal stop)
            throws IOException, InterruptedException {
        String at = folder + "/" + name;
        boolean started = false;
        Files.createDirectories(output.getParent());
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(step.timeoutSeconds());
        while (true) {
            try {
                if (!started) {
                    // From now on it may have begun, whatever becomes of the connection.
                    Files.writeString(output.resolveSibling("started"), "over ssh\n");
                    start(at, step.command(), environment);
                    started = true;
                }
                Optional<Integer> code = look(at, output);
                if (code.isPresent()) {
                    end(at, false);
                    return new End.Exited(code.get());
                }
                if (stop.wanted() || System.nanoTime() > deadline
                        || Files.exists(output) && Files.size(output) > limits.output()) {
                    end(at, !stop.atOnce());
                    return stop.wanted() ? new End.Stopped() : System.nanoTime() > deadline ? new End.TimedOut()
                            : new End.TookTooMuch(limits.saidTooMuch());
                }
                if (isGone(at)) {
                    return look(at, output).<End>map(End.Exited::new).orElseGet(End.Unknown::new);
                }
            } catch (SshHost.OtherKey changed) {
                throw changed;
            } catch (IOException away) {
                lost(away);
                if (System.nanoTime() > deadline) {
                    return new End.Unknown();
                }
            }
            Thread.sleep(LOOK_MILLIS);
        }
    }

    private void start(String at, String command, Map<String, String> environment) throws IOException {
        StringBuilder exports = new StringBuilder();
        environment.forEach((key, value) -> exports.append("export ").append(key).append('=')
                .append(SshHost.quote(value)).append('\n'));
        exports.append("export ").append(MARK).append('=').append(SshHost.quote(at)).append('\n');
        host().run("umask 077; mkdir -p " + SshHost.quote(at) + " " + SshHost.quote(folder + "/workspace"));
        host().write(at + "/environment", exports.toString());
        host().write(at + "/script", command + "\n");
        host().write(at + "/wrapper", WRAPPER);
        host().run("test -e " + SshHost.quote(at + "/started") + " || { setsid sh " + SshHost.quote(at + "/wrapper")
                + " " + SshHost.quote(at) + " "
                + SshHost.quote(folder + "/workspace") + " </dev/null >/dev/null 2>&1 & }");
    }

    /** Fetches what it said since, and its exit status where it has one. */
    private Optional<Integer> look(String at, Path output) throws IOException {
        String exit = host().exec("cat " + SshHost.quote(at + "/exit") + " 2>/dev/null", Duration.ofSeconds(15))
                .output();
        if (host().exec("test -s " + SshHost.quote(at + "/output"), Duration.ofSeconds(15)).status() == 0) {
            for (byte[] block = host().read(at + "/output", size(output)); block.length > 0; block = host()
                    .read(at + "/output", size(output))) {
                Files.write(output, block, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
            }
        }
        return exit.endsWith("\n") ? Optional.of(Integer.parseInt(exit.strip())) : Optional.empty();
    }

    private static long size(Path file) throws IOException {
        return Files.exists(file) ? Files.size(file) : 0;
    }

    private boolean isGone(String at) throws IOException {
        return host().exec("test -e " + SshHost.quote(at + "/started") + " && ! kill -0 $(cat "
                + SshHost.quote(at + "/started") + ") 2>/dev/null && ! test -e "
                + SshHost.quote(at + "/exit"), Duration.ofSeconds(15)).status() == 0;
    }

    /** Ends all that it started: TERM, a grace period, KILL. */
    private void end(String at, boolean withGrace) throws IOException {
        host().exec(END.formatted(SshHost.quote(MARK + "=" + at), SshHost.quote(at + "/started"),
                withGrace ? GRACE_SECONDS : 0), Duration.ofSeconds(GRACE_SECONDS + 10));
    }

    /** What sha256sum says first; a name with odd characters has a backslash before. */
    private static final Pattern DIGEST = Pattern.compile("\\\\?([0-9a-f]{64})\\b");

    /** The SHA-256 digest of a file on the host; empty where there is none. */
    public static String digest(SshHost host, String path) throws IOException {
        SshHost.Said said = host.exec("sha256sum -- " + SshHost.quote(path) + " 2>/dev/null", Duration.ofSeconds(60));
        Matcher digest = DIGEST.matcher(said.output());
        return said.status() == 0 && digest.lookingAt() ? digest.group(1) : "";
    }

    /** Removes what is on the host about it. */
    public void clear() {
        try {
            host().run("rm -rf " + SshHost.quote(folder));
        } catch (IOException left) {
            LOG.warn("{} is left on {}: {}", folder, ssh.address(), left.getMessage());
        }
    }

    @Override
    public void close() {
        host.ifPresent(SshHost::close);
    }
}
