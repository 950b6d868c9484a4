package dev.paseo.service.source;

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
import java.util.concurrent.TimeUnit;

/** Runs the git command, without a terminal, prompts or the configuration of whoever started the service. */
final class Git {

    private static final Duration LONGEST = Duration.ofMinutes(5);
    private static final List<String> BEFORE = List.of("git", "-c", "safe.directory=*", "-c", "gc.auto=0",
            "-c", "protocol.allow=never", "-c", "protocol.file.allow=always", "-c", "core.hooksPath=/dev/null");

    private Git() {}

    /** What git said when it failed. */
    static final class Failed extends RuntimeException {
        Failed(String message) {
            super(message);
        }
    }

    static byte[] run(Path folder, List<String> arguments) {
        try (Streaming running = stream(folder, arguments)) {
            return running.output().readAllBytes();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    static String text(Path folder, List<String> arguments) {
        return new String(run(folder, arguments), StandardCharsets.UTF_8);
    }

    /** Output as it comes; closing it waits for git's end and fails where git failed. */
    static Streaming stream(Path folder, List<String> arguments) throws IOException {
        return stream(folder, arguments, Map.of());
    }

    static String text(Path folder, List<String> arguments, Map<String, String> environment) {
        try (Streaming running = stream(folder, arguments, environment)) {
            return new String(running.output().readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private static Streaming stream(Path folder, List<String> arguments, Map<String, String> environment) throws IOException {
        List<String> command = new ArrayList<>(BEFORE);
        command.addAll(arguments);
        Path errors = Files.createTempFile("paseo-git", ".err");
        ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile()).redirectError(errors.toFile());
        builder.environment().keySet().removeIf(name -> name.startsWith("GIT_"));
        builder.environment().putAll(Map.of("GIT_TERMINAL_PROMPT", "0", "GIT_CONFIG_NOSYSTEM", "1",
                "GIT_CONFIG_GLOBAL", "/dev/null", "LC_ALL", "C"));
        builder.environment().putAll(environment);
        Process process = builder.start();
        process.getOutputStream().close();
        return new Streaming(process, errors, arguments.getFirst());
    }

    record Streaming(Process process, Path errors, String verb) implements AutoCloseable {

        InputStream output() {
            return process.getInputStream();
        }

        @Override
        public void close() throws IOException {
            try {
                if (!process.waitFor(LONGEST.toSeconds(), TimeUnit.SECONDS)) {
                    process.destroyForcibly();
                    throw new Failed("git " + verb + " took longer than " + LONGEST.toMinutes() + " min");
                }
                if (process.exitValue() != 0) {
                    String said = Files.readString(errors).strip();
                    throw new Failed("git " + verb + " failed: " + said.substring(Math.max(0, said.length() - 400)));
                }
            } catch (InterruptedException stop) {
                process.destroyForcibly();
                Thread.currentThread().interrupt();
                throw new Failed("git " + verb + " was interrupted");
            } finally {
                Files.deleteIfExists(errors);
            }
        }
    }
}
