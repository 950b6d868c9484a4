package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.StepProcess;
import dev.paseo.agent.process.Walls;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/**
 * Measures what docs/benchmarks.md tells, each figure beside its primitive, in one run. Argument: the file to write.
 * With -Dpaseo.bench-only only some are measured, and nothing is written: matching, hooks, polls, chain, whereabouts,
 * rolling, fan, gates, engine, walls, logs, tree, pieces, console, trail, history, client,
 * latencies.
 */
public final class Bench {

    private static final int RUNS = 60;
    private static final int STEPS = 60;

    private final Figures figures = new Figures();

    private Bench() {}

    public static void main(String[] arguments) throws Exception {
        System.setProperty("paseo.database.durable", "true");
        Bench bench = new Bench();
        String only = System.getProperty("paseo.bench-only", "");
        if (!only.isEmpty()) {
            StartingBench starting = new StartingBench(bench.figures);
            DeployingBench deploying = new DeployingBench(bench.figures);
            for (String part : only.split(",")) {
                switch (part) {
                    case "matching" -> starting.matching();
                    case "hooks" -> starting.hooks();
                    case "polls" -> starting.polls();
                    case "chain" -> starting.chain();
                    case "whereabouts" -> deploying.whereabouts();
                    case "rolling" -> deploying.rolling();
                    case "fan" -> deploying.fan();
                    case "gates" -> new GateBench(bench.figures).measure();
                    case "engine" -> new EngineBench(bench.figures).measure();
                    case "walls" -> bench.walls();
                    case "tree" -> new TreeBench(bench.figures).measure();
                    case "pieces" -> new PieceBench(bench.figures).measure();
                    case "console" -> new ConsoleBench(bench.figures).measure();
                    case "trail" -> new TrailBench(bench.figures).measure();
                    case "history" -> new HistoryBench(bench.figures).measure();
                    case "client" -> bench.client();
                    case "logs" -> new LogBench(bench.figures).measure();
                    default -> bench.latencies();
                }
            }
            System.exit(0);
        }
        LanguageBench.measure(bench.figures);
        bench.latencies();
        new StartingBench(bench.figures).measure();
        new DeployingBench(bench.figures).measure();
        new GateBench(bench.figures).measure();
        bench.stepOverhead();
        bench.walls();
        new EngineBench(bench.figures).measure();
        new LogBench(bench.figures).measure();
        new TreeBench(bench.figures).measure();
        new PieceBench(bench.figures).measure();
        new ConsoleBench(bench.figures).measure();
        new TrailBench(bench.figures).measure();
        new HistoryBench(bench.figures).measure();
        bench.client();
        String text = """
                # Benchmarks

                Measured by `script/bench` on %s, on a machine with %d cores, %s, Java %s, with the database's \
                durable settings.
                Written down as it came out.

                | what | measured | budget | against |
                |---|---|---|---|
                %s
                """.formatted(Instant.now().toString().substring(0, 10), Runtime.getRuntime().availableProcessors(),
                System.getProperty("os.name"), System.getProperty("java.version"), bench.figures.table());
        Files.writeString(Path.of(arguments[0]), text);
        System.out.println(text);
        System.exit(0);
    }

    /** Push hook to first process, and the end of a stage to the next one's process; both by the steps' own clocks. */
    private void latencies() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.component();
            Path times = Files.createDirectories(park.folder.resolve("times"));
            Map<String, String> files = Scenario.files();
            files.put("build.sh",
                    "#!/bin/sh\ndate +%s%N > " + times
                            + "/$PASEO_COMMIT-begin\nmkdir -p out\necho x > out/app.txt\ndate +%s%N > " + times
                            + "/$PASEO_COMMIT-end\n");
            files.put("test.sh", "#!/bin/sh\ndate +%s%N > " + times + "/$PASEO_COMMIT-next\n");
            List<Double> hook = new ArrayList<>();
            List<Double> next = new ArrayList<>();
            for (int run = 1; run <= RUNS + 10; run++) {
                files.put("README", "run " + run);
                park.installHook(repository,
                        script -> script.replace("curl -sS", "date +%s%N > " + times + "/pushed; curl -sS"));
                repository.push("developer", "main", files);
                park.runEnds(run);
                String commit = repository.head();
                if (run > 10) {
                    hook.add((nanos(times.resolve(commit + "-begin")) - nanos(times.resolve("pushed"))) / 1e6);
                    next.add((nanos(times.resolve(commit + "-next")) - nanos(times.resolve(commit + "-end"))) / 1e6);
                }
            }
            figures.row("push hook received → first step's process started",
                    number("p50 %.0f ms, p99 %.0f ms", percentile(hook, 0.5), percentile(hook, 0.99)),
                    "p50 < 100 ms, p99 < 400 ms", new Figures.Limit(percentile(hook, 0.5), 100, false,
                            "curl's start, five git processes and six durable transactions lie between"),
                    RUNS + " pushes; from just before the hook's curl, so curl's own start is in it");
            figures.row("stage ended → the next stage's process started",
                    number("p50 %.0f ms, p99 %.0f ms", percentile(next, 0.5), percentile(next, 0.99)),
                    "p50 < 40 ms",
                    new Figures.Limit(percentile(next, 0.5), 40, false,
                            "the shell ends, an artifact is kept, two durable transactions, a poll, a fresh "
                                    + "workspace, a new shell"),
                    "from the last command of one stage to the first of the next, in a fresh workspace, with an "
                            + "artifact kept between");
        }
    }

    private static long nanos(Path file) throws IOException {
        return Long.parseLong(Files.readString(file).strip());
    }

    private void stepOverhead() throws Exception {
        long began = System.nanoTime();
        for (int fork = 0; fork < STEPS; fork++) {
            new ProcessBuilder("sh", "-c", "true").start().waitFor();
        }
        double bare = (System.nanoTime() - began) / 1e6 / STEPS;
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml",
                    Scenario.PIPELINE.replace("steps: [./test.sh]", "steps: [" + "'true', ".repeat(STEPS) + "'true']"));
            repository.push("developer", "main", files);
            JsonNode steps = park.runEnds(1).path("stages").path(1).path("steps");
            Instant first = Instant.parse(steps.path(0).path("startedAt").asString());
            Instant last = Instant.parse(steps.path(STEPS).path("endedAt").asString());
            double each = Duration.between(first, last).toNanos() / 1e6 / (STEPS + 1);
            figures.row("a step's overhead",
                    number("%.1f ms (%.1f ms a step, %.1f ms bare; ratio %.1f)", each - bare, each, bare, each / bare),
                    "< 10 ms", new Figures.Limit(each - bare, 10, false, "each step is wrapped, spooled and reported"),
                    "`sh -c true` forked directly; a step is wrapped, spooled, reported twice and its log shipped");
        }
    }

    /** Steps with and without walls, one of each after the other. */
    private void walls() throws Exception {
        Path folder = Files.createTempDirectory("paseo-walls");
        Walls walled = Walls.find(folder.resolve("agent"), folder.resolve("host"), Walls.WallSettings.usual());
        Walls bare = Walls.find(folder.resolve("agent"), folder.resolve("host"),
                new Walls.WallSettings(false, List.of(), List.of(), true, false));
        List<Double> without = new ArrayList<>();
        List<Double> within = new ArrayList<>();
        for (int time = 0; time < RUNS + 10; time++) {
            double plain = step(bare, folder, 2L * time);
            double closed = step(walled, folder, 2L * time + 1);
            if (time >= 10) {
                without.add(plain);
                within.add(closed);
            }
        }
        double more = percentile(within, 0.5) - percentile(without, 0.5);
        figures.row("a step's walls",
                number("%.1f ms more (p50 %.1f ms within, %.1f ms without; ratio %.1f)", more, percentile(within, 0.5),
                        percentile(without, 0.5),
                        percentile(within, 0.5) / percentile(without, 0.5)),
                "< 15 ms", new Figures.Limit(more, 15, false, "bubblewrap makes its namespaces for each"),
                "the same step `true` without walls, in turns; " + walled.words());
    }

    private static double step(Walls walls, Path folder, long work) throws Exception {
        Spool spool = Spool.open(folder.resolve("agent/spool"), work);
        spool.clearFiles();
        walls.own(Walls.Kind.UNTRUSTED_STAGE, spool);
        Path step = spool.step(1, 1);
        long began = System.nanoTime();
        Walls.Box box = walls.box(Walls.Kind.UNTRUSTED_STAGE, spool, step.resolve("script"), Limits.usual());
        StepProcess.End end = StepProcess
                .start(step, "true", spool.workspace(), box, Map.of("PATH", System.getenv("PATH")))
                .await(60, Limits.usual(), spool.own(), GO_ON);
        double millis = (System.nanoTime() - began) / 1e6;
        spool.delete();
        if (!end.equals(new StepProcess.End.Exited(0))) {
            throw new IllegalStateException(end.toString());
        }
        return millis;
    }

    private static final StepProcess.StopSignal GO_ON = new StepProcess.StopSignal() {
        @Override
        public boolean wanted() {
            return false;
        }

        @Override
        public boolean atOnce() {
            return false;
        }
    };

    private void client() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            String[] client = {TestDatabase.ROOT.resolve("script/paseo").toString(), "where"};
            String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
            String[] empty = {java, "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xlog:disable", "-cp",
                    System.getProperty("paseo.empty"), "dev.paseo.e2e.Empty"};
            String[] curl = {"curl", "-s", "-o", "/dev/null", "-H",
                    "Authorization: Bearer " + park.as("developer").token(), park.address() + "/api/v1/whereabouts"};
            double ours = median(park, client);
            double bare = median(park, empty);
            figures.row("client: `paseo where`",
                    number("%.0f ms, %.0f ms over an empty program (%.0f ms); curl %.0f ms", ours, ours - bare, bare,
                            median(park, curl)),
                    "< 150 ms over",
                    new Figures.Limit(ours - bare, 150, false,
                            "the argument parser's classes are of a format that the AOT cache leaves out"),
                    "an empty `main` on the same JVM flags, medians of 15 starts; curl of the same call");
        }
    }

    private static double median(Park park, String... command) throws Exception {
        List<Double> times = new ArrayList<>();
        for (int start = 0; start < 18; start++) {
            ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD);
            builder.environment()
                    .putAll(Map.of("PASEO_SERVICE", park.address(), "PASEO_TOKEN", park.as("developer").token()));
            long began = System.nanoTime();
            int code = builder.start().waitFor();
            if (code != 0) {
                throw new IllegalStateException(String.join(" ", command) + " ended with " + code);
            }
            if (start >= 3) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        return percentile(times, 0.5);
    }
}
