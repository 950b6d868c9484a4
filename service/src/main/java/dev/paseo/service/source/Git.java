package dev.paseo.service.source;

import dev.paseo.core.text.Size;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * Runs the git command, without a terminal, prompts or the configuration of whoever started the service, and never for
 * ever.
 */
final class Git {

    private static final Duration LONGEST = Duration.ofMinutes(5);
    /** The most that git may say where all of it is kept in memory. */
    private static final int MOST_BYTES = 32_000_000;
    private static final List<String> BEFORE = List.of("git", "-c", "safe.directory=*", "-c", "gc.auto=0",
            "-c", "protocol.allow=never", "-c", "protocol.file.allow=always", "-c", "protocol.https.allow=always", "-c",
            "protocol.ssh.allow=always",
            "-c", "http.followRedirects=false", "-c", "http.lowSpeedLimit=100", "-c", "http.lowSpeedTime=20", "-c",
            "credential.helper=",
            "-c", "core.hooksPath=/dev/null");
    private static final ScheduledThreadPoolExecutor WATCH = watch();

    private Git() {}

    /** What git said when it failed. */
    static final class Failed extends RuntimeException {

        private final int exit;

        Failed(String message) {
            this(message, -1);
        }

        Failed(String message, int exit) {
            super(message);
            this.exit = exit;
        }

        /** Its exit code; -1 where it was ended, or never began. */
        int exit() {
            return exit;
        }
    }

    private static ScheduledThreadPoolExecutor watch() {
        ScheduledThreadPoolExecutor watch = new ScheduledThreadPoolExecutor(1,
                Thread.ofPlatform().daemon().name("git-watch").factory());
        watch.setRemoveOnCancelPolicy(true);
        return watch;
    }

    static byte[] run(Path folder, List<String> arguments) {
        return run(folder, arguments, Map.of(), LONGEST);
    }

    static String text(Path folder, List<String> arguments) {
        return new String(run(folder, arguments), StandardCharsets.UTF_8);
    }

    static String text(Path folder, List<String> arguments, Map<String, String> environment) {
        return new String(run(folder, arguments, environment, LONGEST), StandardCharsets.UTF_8);
    }

    /** What it printed; it is ended after the limit. */
    static byte[] run(Path folder, List<String> arguments, Map<String, String> environment, Duration limit) {
        try (Streaming running = start(folder, arguments, environment, limit)) {
            byte[] said = running.output().readNBytes(MOST_BYTES + 1);
            if (said.length > MOST_BYTES) {
                running.stop();
                throw new Failed("git " + arguments.getFirst() + " said more than " + Size.words(MOST_BYTES));
            }
            return said;
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** Output as it comes; closing it waits for git's end and fails where git failed. */
    static Streaming stream(Path folder, List<String> arguments) throws IOException {
        return start(folder, arguments, Map.of(), LONGEST);
    }

    private static Streaming start(Path folder, List<String> arguments, Map<String, String> environment, Duration limit)
            throws IOException {
        List<String> command = new ArrayList<>(BEFORE);
        command.addAll(arguments);
        Path errors = Files.createTempFile("paseo-git", ".err");
        ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile()).redirectError(errors.toFile());
        builder.environment().keySet().removeIf(name -> name.startsWith("GIT_") || name.startsWith("SSH_"));
        builder.environment().putAll(Map.of("GIT_TERMINAL_PROMPT", "0", "GIT_CONFIG_NOSYSTEM", "1",
                "GIT_CONFIG_GLOBAL", "/dev/null", "LC_ALL", "C"));
        builder.environment().putAll(environment);
        Process process = builder.start();
        process.getOutputStream().close();
        AtomicBoolean late = new AtomicBoolean();
        ScheduledFuture<?> end = WATCH.schedule(() -> {
            late.set(true);
            process.descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        }, limit.toMillis(), TimeUnit.MILLISECONDS);
        return new Streaming(process, errors, arguments.getFirst(), end, late, limit);
    }

    record Streaming(Process process, Path errors, String verb, ScheduledFuture<?> end, AtomicBoolean late,
            Duration limit) implements AutoCloseable {

        InputStream output() {
            return process.getInputStream();
        }

        void stop() {
            process.descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        }

        @Override
        public void close() throws IOException {
            try {
                process.waitFor();
                if (late.get()) {
                    throw new Failed("git " + verb + " took longer than " + limit.toSeconds() + " s and was ended");
                }
                if (process.exitValue() != 0) {
                    String said = Files.readString(errors, StandardCharsets.ISO_8859_1).strip();
                    throw new Failed(
                            said.contains("Host key verification failed")
                                    ? "the host shows another key than those that were named for it"
                                    : "git " + verb + " failed: " + said.substring(Math.max(0, said.length() - 400)),
                            process.exitValue());
                }
            } catch (InterruptedException stop) {
                process.destroyForcibly();
                Thread.currentThread().interrupt();
                throw new Failed("git " + verb + " was interrupted");
            } finally {
                end.cancel(false);
                Files.deleteIfExists(errors);
            }
        }
    }
}
