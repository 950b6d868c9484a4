package dev.paseo.agent.process;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StepProcessTest {

    private static final StepProcess.StopSignal GO_ON = signal(false);

    @TempDir
    Path folder;

    private static final Limits LIMITS = Limits.usual();
    private static final Limits LITTLE = new Limits(1 << 20, LIMITS.memory(), LIMITS.processes());

    private List<Path> own() {
        return List.of(folder.resolve("workspace"));
    }

    private static Walls.Box bare(Path step) {
        return new Walls.Box(List.of("sh", "-e", step.resolve("script").toString()), step, step, Optional.empty());
    }

    static StepProcess.StopSignal signal(boolean wanted) {
        return new StepProcess.StopSignal() {
            @Override
            public boolean wanted() {
                return wanted;
            }

            @Override
            public boolean atOnce() {
                return true;
            }
        };
    }

    @BeforeEach
    void workspace() throws IOException {
        Files.createDirectories(folder.resolve("workspace"));
    }

    private StepProcess start(String command) throws IOException {
        return StepProcess.start(folder.resolve("step-1"), command, folder.resolve("workspace"),
                bare(folder.resolve("step-1")), Map.of("PATH", System.getenv("PATH"), "WORD", "light"));
    }

    private String output() throws IOException {
        return Files.readString(folder.resolve("step-1").resolve("output"));
    }

    /** A killed process is gone as soon as the kernel gets to it: that is waited for, within bounds. */
    private static boolean isGone(String process) throws IOException {
        long end = System.nanoTime() + Duration.ofSeconds(5).toNanos();
        while (runs(Path.of("/proc", process, "status"))) {
            if (System.nanoTime() > end) {
                return false;
            }
            Thread.onSpinWait();
        }
        return true;
    }

    private static boolean runs(Path status) throws IOException {
        try {
            return !Files.readString(status).contains("State:\tZ");
        } catch (NoSuchFileException gone) {
            return false;
        }
    }

    @Test
    void itRunsInTheWorkspaceWithACleanedEnvironmentAndStopsAtTheFirstFailure() throws Exception {
        StepProcess step = start("pwd; echo \"$WORD ${HOME:-no home}\"; false; echo never");
        assertEquals(new StepProcess.End.Exited(1), step.await(30, LIMITS, own(), GO_ON));
        assertEquals(folder.resolve("workspace") + "\nlight no home\n", output());
    }

    @Test
    void itIsStartedOnceHoweverOftenItIsAskedFor() throws Exception {
        String command = "echo once >> " + folder.resolve("marker");
        List<Thread> threads = new ArrayList<>();
        for (int at = 0; at < 8; at++) {
            threads.add(Thread.ofVirtual().start(() -> {
                try {
                    start(command).await(30, LIMITS, own(), GO_ON);
                } catch (IOException | InterruptedException failed) {
                    throw new IllegalStateException(failed);
                }
            }));
        }
        for (Thread thread : threads) {
            thread.join();
        }
        assertEquals("once\n", Files.readString(folder.resolve("marker")));
        assertEquals(new StepProcess.End.Exited(0), start(command).await(30, LIMITS, own(), GO_ON),
                "its end is known afterwards as well");
    }

    @Test
    void aTimeoutEndsTheWholeTreeAlsoWhatLeftItsSession() throws Exception {
        StepProcess step = start("setsid sh -c 'echo $$ > child; exec sleep 600' & sleep 600");
        Path child = folder.resolve("workspace").resolve("child");
        assertEquals(new StepProcess.End.TimedOut(), step.await(1, LIMITS, own(), GO_ON));
        assertTrue(isGone(Files.readString(child).strip()));
    }

    @Test
    void childrenLeftBehindAreEndedWithTheStep() throws Exception {
        StepProcess step = start(
                "(sleep 600 & echo $! > child; until [ \"$(cat /proc/$!/comm)\" = sleep ]; do :; done)");
        assertEquals(new StepProcess.End.Exited(0), step.await(30, LIMITS, own(), GO_ON));
        assertTrue(isGone(Files.readString(folder.resolve("workspace").resolve("child")).strip()));
        assertEquals(List.of("sleep"), step.leftRunning(), "and that is known");
    }

    @Test
    void whatBecomesAnotherProgramAtThatMomentIsEndedToo() throws Exception {
        for (int time = 0; time < 20; time++) {
            StepProcess step = StepProcess.start(folder.resolve("step-" + time),
                    "setsid nohup sleep 600 > /dev/null 2>&1 < /dev/null & echo $! > child",
                    folder.resolve("workspace"), bare(folder.resolve("step-" + time)),
                    Map.of("PATH", System.getenv("PATH")));
            assertEquals(new StepProcess.End.Exited(0), step.await(30, LIMITS, own(), GO_ON));
            assertTrue(isGone(Files.readString(folder.resolve("workspace").resolve("child")).strip()), "time " + time);
        }
    }

    @Test
    void itCanBeStopped() throws Exception {
        assertEquals(new StepProcess.End.Stopped(), start("sleep 600").await(60, LIMITS, own(), signal(true)));
    }

    @Test
    void aTryWhoseEndCannotBeKnownIsUnknownAndNotStartedAgain() throws Exception {
        Path step = Files.createDirectories(folder.resolve("step-1"));
        Files.writeString(step.resolve("started"), "999999999\n");
        assertEquals(new StepProcess.End.Unknown(), start("echo again > marker").await(30, LIMITS, own(), GO_ON));
        assertTrue(Files.notExists(folder.resolve("workspace").resolve("marker")));
    }

    @Test
    void aStepThatSaysTooMuchIsEnded() throws Exception {
        assertEquals(new StepProcess.End.TookTooMuch("said more than 1 MB, which is the most that is kept of a step"),
                start("yes").await(30, LITTLE, own(), GO_ON));
    }

    @Test
    void itsMemoryIsSeen() throws Exception {
        StepProcess step = start("sleep 0.6");
        step.await(30, LITTLE, own(), GO_ON);
        assertTrue(step.peakMemory().orElse(0L) > 100_000);
    }
}
