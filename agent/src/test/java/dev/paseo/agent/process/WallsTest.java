package dev.paseo.agent.process;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Attacks from within a step, on its agent, on other work, and on the machine. */
class WallsTest {

    private static final StepProcess.StopSignal GO_ON = StepProcessTest.signal(false);

    @TempDir
    Path folder;
    private Path agent;
    private Path host;
    private Spool spool;

    @BeforeEach
    void agentAndItsOtherWork() throws IOException {
        agent = Files.createDirectories(folder.resolve("agent"),
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        host = Files.createDirectories(folder.resolve("host"));
        Files.writeString(agent.resolve("secret"), "the agent's secret");
        Spool other = Spool.open(agent.resolve("spool"), 6);
        other.clearFiles();
        Files.writeString(other.workspace().resolve("theirs"), "another's work");
        spool = Spool.open(agent.resolve("spool"), 7);
        spool.clearFiles();
    }

    private Walls walls(Walls.WallSettings settings) throws IOException, InterruptedException {
        return Walls.find(agent, host, settings);
    }

    private String run(Walls walls, Walls.Kind kind, String command) throws IOException, InterruptedException {
        return run(walls, kind, command, Limits.usual(), new StepProcess.End.Exited(0));
    }

    private String run(Walls walls, Walls.Kind kind, String command, Limits limits, StepProcess.End expected)
            throws IOException, InterruptedException {
        walls.own(kind, spool);
        Path step = spool.step(1, 1);
        StepProcess process = start(walls, kind, command, limits);
        StepProcess.End end = process.await(60, limits, spool.own(), GO_ON);
        String output = Files.exists(step.resolve("output")) ? Files.readString(step.resolve("output")) : "";
        assertEquals(expected, end, output);
        left = process.leftRunning();
        return output;
    }

    private List<String> left = List.of();

    private StepProcess start(Walls walls, Walls.Kind kind, String command, Limits limits) throws IOException {
        Path step = spool.step(1, 1);
        Walls.Box box = walls.box(kind, spool, step.resolve("script"), limits);
        Map<String, String> environment = new HashMap<>(Map.of("PATH", System.getenv("PATH"), "ARTIFACTS",
                box.artifacts().toString(), "WORKSPACE", box.workspace().toString()));
        box.home().ifPresent(home -> environment.put("HOME", home.toString()));
        return StepProcess.start(step, command, spool.workspace(), box, environment);
    }

    @Test
    void aStepDoesNotReachTheAgentItsOtherWorkNorAHome() throws Exception {
        Walls walls = walls(Walls.WallSettings.usual());
        assertTrue(walls.areUp(), walls.words());
        Files.writeString(spool.artifacts().resolve("app.jar"), "bytes");
        String said = run(walls, Walls.Kind.UNTRUSTED_STAGE, """
                cat '%1$s/secret' || echo no secret
                cat '%1$s/spool/work-6/workspace/theirs' || echo nothing of others
                [ -z "$(ls -A /root /home | grep -v :)" ] && echo no home of others
                [ "$(pwd)" = "$WORKSPACE" ] && echo here
                echo kept > "$HOME/mine" && echo planted > /tmp/planted && echo made > result
                echo changed > "$ARTIFACTS/app.jar" || echo artifacts stay
                touch /usr/planted /etc/planted '%1$s/sources' || echo the machine stays
                for each in /proc/[0-9]*/environ; do grep -z SHOWN "$each"; done || echo no environment of others
                """.formatted(agent));
        assertEquals(
                List.of("no secret", "nothing of others", "no home of others", "here", "artifacts stay",
                        "the machine stays", "no environment of others"),
                said.lines().filter(line -> !line.contains(":") && !line.isBlank()).toList(), said);
        assertEquals("made", Files.readString(spool.workspace().resolve("result")).strip());
        assertEquals("bytes", Files.readString(spool.artifacts().resolve("app.jar")));
        assertTrue(Files.notExists(Path.of("/tmp/planted")));
        assertTrue(Files.exists(spool.temporary().resolve("planted")));
    }

    @Test
    void whereTheAgentIsRootItsStepsAreNot() throws Exception {
        Walls walls = walls(Walls.WallSettings.usual());
        boolean root = Integer.valueOf(0).equals(Files.getAttribute(Path.of("/proc/self"), "unix:uid"));
        assertEquals(root, walls.words().contains("user"), walls.words());
        String said = run(walls, Walls.Kind.STAGE,
                "id -u; head -1 /etc/shadow || echo not readable; grep CapEff /proc/self/status; touch mine");
        assertTrue(said.contains("not readable") && said.contains("0000000000000000"), said);
        assertEquals(said.lines().findFirst().orElse(""), Files
                .getAttribute(spool.workspace().resolve("mine"), "unix:uid", LinkOption.NOFOLLOW_LINKS).toString());
        assertFalse(root && said.startsWith("0\n"), said);
    }

    @ParameterizedTest
    @EnumSource(value = Walls.Kind.class, names = {"STAGE", "UNTRUSTED_STAGE", "UNTRUSTED_RECIPE"})
    void whatHidesFromItsStepEndsWithIt(Walls.Kind kind) throws Exception {
        run(walls(Walls.WallSettings.usual()), kind,
                "setsid env -i sleep 4711 </dev/null >/dev/null 2>&1 &\n(setsid env -i sh -c 'sleep 4711 & sleep "
                        + "4711' &) &\nsleep 0.1");
        assertTrue(left.contains("sleep"), "it is told: " + left);
        assertFalse(ProcessHandle.allProcesses().anyMatch(
                process -> process.info().commandLine().filter(line -> line.contains("sleep 4711")).isPresent()));
    }

    @Test
    void whatHidesIsEndedToo() throws Exception {
        Walls walls = walls(Walls.WallSettings.usual());
        walls.own(Walls.Kind.STAGE, spool);
        StepProcess step = start(walls, Walls.Kind.STAGE, "setsid env -i sleep 4712 &\ntouch ready; sleep 4712",
                Limits.usual());
        while (!Files.exists(spool.workspace().resolve("ready"))) {
            Thread.onSpinWait();
        }
        assertEquals(new StepProcess.End.Stopped(),
                step.await(60, Limits.usual(), spool.own(), StepProcessTest.signal(true)));
        assertFalse(ProcessHandle.allProcesses().anyMatch(
                process -> process.info().commandLine().filter(line -> line.contains("sleep 4712")).isPresent()));
    }

    @Test
    void aForkBombIsEnded() throws Exception {
        run(walls(Walls.WallSettings.usual()), Walls.Kind.UNTRUSTED_STAGE,
                "(while true; do sleep 4713 & done) || true\nwhile :; do :; done", new Limits(1 << 20, 1L << 33, 100),
                new StepProcess.End.TookTooMuch(
                        "had more than 100 processes at once, which is the most that a step may have here"));
        assertFalse(ProcessHandle.allProcesses().anyMatch(
                process -> process.info().commandLine().filter(line -> line.contains("sleep 4713")).isPresent()));
    }

    @Test
    void whoTakesAllMemoryIsEnded() throws Exception {
        run(walls(Walls.WallSettings.usual()), Walls.Kind.STAGE,
                "head -c 300000000 /dev/zero | tail -c 290000000 | sleep 60", new Limits(1 << 20, 100_000_000, 100),
                new StepProcess.End.TookTooMuch(
                        "used more than 100 MB of memory, which is the most that a step may use here"));
    }

    @Test
    void whoFillsTheDiskIsEnded() throws Exception {
        try (SmallDisk disk = new SmallDisk(folder.resolve("small"), 64)) {
            spool = Spool.open(disk.folder().resolve("spool"), 7);
            spool.clearFiles();
            run(Walls.find(disk.folder(), host, Walls.WallSettings.usual()), Walls.Kind.UNTRUSTED_STAGE,
                    "head -c 41472000 /dev/zero > filling; sleep 60", Limits.usual(),
                    new StepProcess.End.TookTooMuch("has written 41 MB, and the agent's disk has only 25 MB left"));
        }
    }

    @Test
    void trustedStagesShareWhatIsSharedAndOthersDoNot() throws Exception {
        Path cache = Files.createDirectories(folder.resolve("cache"));
        Walls walls = walls(new Walls.WallSettings(true, List.of(cache), List.of(), true, false));
        assertTrue(walls.words().contains("trusted stages share " + cache), walls.words());
        run(walls, Walls.Kind.STAGE, "echo kept > '" + cache + "/kept'");
        assertEquals("kept", Files.readString(cache.resolve("kept")).strip());
        spool.delete();
        spool = Spool.open(agent.resolve("spool"), 7);
        spool.clearFiles();
        run(walls, Walls.Kind.UNTRUSTED_STAGE, "cat '" + cache + "/kept' && exit 9; mkdir -p '" + cache
                + "' && echo planted > '" + cache + "/kept' || true");
        assertEquals("kept", Files.readString(cache.resolve("kept")).strip());
    }

    @Test
    void aRecipeChangesItsHostAndSeesNothingOfTheAgent() throws Exception {
        Walls walls = walls(Walls.WallSettings.usual());
        String said = run(walls, Walls.Kind.RECIPE, "cat '" + agent + "/secret' || echo no secret; echo live > '" + host
                + "/version'; touch '" + folder + "/elsewhere'; touch result");
        assertTrue(said.endsWith("no secret\n"), said);
        assertEquals("live", Files.readString(host.resolve("version")).strip());
        assertTrue(Files.exists(folder.resolve("elsewhere")), "a trusted recipe reaches the host");
        assertTrue(Files.exists(spool.workspace().resolve("result")));
    }

    @Test
    void anUntrustedRecipeChangesItsHostsFolderAndNothingElse() throws Exception {
        Path elsewhere = Files.writeString(folder.resolve("elsewhere"), "as it was");
        run(walls(Walls.WallSettings.usual()), Walls.Kind.UNTRUSTED_RECIPE,
                "echo preview > '" + host + "/version'; echo changed > '" + elsewhere + "' || true");
        assertEquals("preview", Files.readString(host.resolve("version")).strip());
        assertEquals("as it was", Files.readString(elsewhere));
    }

    @Test
    void withoutNetworkNothingAnswers() throws Exception {
        String said = run(walls(new Walls.WallSettings(true, List.of(), List.of(), false, false)), Walls.Kind.STAGE,
                "cat /proc/net/dev | grep -v lo: | tail -n +3 | wc -l");
        assertEquals("0", said.strip());
    }

    @Test
    void wallsThatAreNotWantedAreSaidToBeNone() throws Exception {
        Walls walls = walls(new Walls.WallSettings(false, List.of(), List.of(), true, false));
        assertFalse(walls.areUp());
        assertEquals("none: the agent was started with --without-walls", walls.words());
        assertEquals("the agent's secret", run(walls, Walls.Kind.STAGE, "cat '" + agent + "/secret'").strip(),
                "and there are none");
    }
}
