package dev.paseo.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import tools.jackson.databind.JsonNode;

/** Measures what docs/benchmarks.md tells, each figure beside its primitive, in one run. Argument: the file to write. */
public final class Bench {

    private static final int RUNS = 60;
    private static final int STEPS = 60;
    private static final int BUSY_RUNS = 190;
    private static final int BUSY_STAGES = 5;
    private static final int THREADS = 8;

    private final List<String> rows = new ArrayList<>();

    private Bench() {}

    public static void main(String[] arguments) throws Exception {
        System.setProperty("paseo.database.durable", "true");
        Bench bench = new Bench();
        bench.latencies();
        bench.stepOverhead();
        bench.transitions();
        bench.client();
        String text = """
                # Benchmarks

                Measured by `script/bench` on %s, on a machine with %d cores, %s, Java %s, with the database's durable settings.
                Written down as it came out.

                | what | measured | budget | against |
                |---|---|---|---|
                %s
                """.formatted(Instant.now().toString().substring(0, 10), Runtime.getRuntime().availableProcessors(),
                System.getProperty("os.name"), System.getProperty("java.version"), String.join("\n", bench.rows));
        Files.writeString(Path.of(arguments[0]), text);
        System.out.println(text);
        System.exit(0);
    }

    private void row(String what, String measured, String budget, String against) {
        rows.add("| " + what + " | " + measured + " | " + budget + " | " + against + " |");
    }

    private static String number(String format, double... values) {
        return String.format(Locale.ROOT, format, Arrays.stream(values).boxed().toArray());
    }

    private static double percentile(List<Double> values, double share) {
        List<Double> sorted = values.stream().sorted().toList();
        return sorted.get((int) Math.min(sorted.size() - 1, Math.floor(share * sorted.size())));
    }

    /** Push hook to first process, and the end of a stage to the next one's process; both by the steps' own clocks. */
    private void latencies() throws Exception {
        try (Harbour harbour = new Harbour()) {
            harbour.startService();
            harbour.accounts();
            harbour.startAgent("builder");
            Repository repository = harbour.component();
            Path times = Files.createDirectories(harbour.folder.resolve("times"));
            Map<String, String> files = Scenario.files();
            files.put("build.sh", "#!/bin/sh\ndate +%s%N > " + times + "/$PASEO_COMMIT-begin\nmkdir -p out\necho x > out/app.txt\ndate +%s%N > " + times + "/$PASEO_COMMIT-end\n");
            files.put("test.sh", "#!/bin/sh\ndate +%s%N > " + times + "/$PASEO_COMMIT-next\n");
            List<Double> hook = new ArrayList<>();
            List<Double> next = new ArrayList<>();
            for (int run = 1; run <= RUNS + 10; run++) {
                files.put("README", "run " + run);
                harbour.installHook(repository, script -> script.replace("curl -sS", "date +%s%N > " + times + "/pushed; curl -sS"));
                repository.push("developer", "main", files);
                harbour.runEnds(run);
                String commit = repository.head();
                if (run > 10) {
                    hook.add((nanos(times.resolve(commit + "-begin")) - nanos(times.resolve("pushed"))) / 1e6);
                    next.add((nanos(times.resolve(commit + "-next")) - nanos(times.resolve(commit + "-end"))) / 1e6);
                }
            }
            row("push hook received → first step's process started", number("p50 %.0f ms, p99 %.0f ms", percentile(hook, 0.5), percentile(hook, 0.99)),
                    "p50 < 100 ms, p99 < 400 ms", RUNS + " pushes; from just before the hook's curl, so curl's own start is in it");
            row("stage ended → the next stage's process started", number("p50 %.0f ms, p99 %.0f ms", percentile(next, 0.5), percentile(next, 0.99)),
                    "p50 < 40 ms", "from the last command of one stage to the first of the next, in a fresh workspace, with an artifact kept between");
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
        try (Harbour harbour = new Harbour()) {
            harbour.startService();
            harbour.accounts();
            harbour.startAgent("builder");
            Repository repository = harbour.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml", Scenario.PIPELINE.replace("steps: [./test.sh]", "steps: [" + "'true', ".repeat(STEPS) + "'true']"));
            repository.push("developer", "main", files);
            JsonNode steps = harbour.runEnds(1).path("stages").path(1).path("steps");
            Instant first = Instant.parse(steps.path(0).path("startedAt").asString());
            Instant last = Instant.parse(steps.path(STEPS).path("endedAt").asString());
            double each = Duration.between(first, last).toNanos() / 1e6 / (STEPS + 1);
            row("a step's overhead", number("%.1f ms (%.1f ms a step, %.1f ms bare; ratio %.1f)", each - bare, each, bare, each / bare), "< 10 ms",
                    "`sh -c true` forked directly; a step is wrapped, spooled, reported twice and its log shipped");
        }
    }

    /** Agents that do nothing but take and end stages, against the same writes by bare JDBC. */
    private void transitions() throws Exception {
        try (Harbour harbour = new Harbour()) {
            harbour.startService();
            harbour.accounts();
            Repository repository = harbour.component();
            StringBuilder stages = new StringBuilder("paseo: 1\ncomponent: tide-api\nversions: \"1.{serial}\"\nstarts:\n  - push: [main]\nstages:\n");
            for (int stage = 0; stage < BUSY_STAGES; stage++) {
                stages.append("  stage-").append(stage).append(": {steps: ['true']}\n");
            }
            repository.push("developer", "main", Map.of("paseo.yaml", stages.toString()));
            for (int run = 1; run < BUSY_RUNS; run++) {
                harbour.as("developer").post("/api/v1/runs", Map.of("component", "tide-api")).good();
            }
            Await.until("all runs are prepared", () -> harbour.as("developer").get("/api/v1/components/tide-api/runs?limit=200").body()
                    .valueStream().allMatch(run -> run.path("status").asString().equals("running")));
            int stagesInAll = BUSY_RUNS * BUSY_STAGES;
            AtomicInteger done = new AtomicInteger();
            List<String> secrets = new ArrayList<>();
            for (int agent = 0; agent < THREADS; agent++) {
                String secret = "bench-" + agent + "-" + "x".repeat(40);
                new Client(harbour.address(), "").post("/agent/v1/enrolment", Map.of("token", harbour.invite("bench-" + agent), "secret", secret)).good();
                secrets.add(secret);
            }
            double seconds;
            try (ExecutorService threads = Executors.newFixedThreadPool(THREADS)) {
                secrets.forEach(secret -> threads.submit(() -> work(harbour, secret, done, stagesInAll)));
                Await.until(Duration.ofMinutes(5), () -> "half of them are done", () -> done.get() >= stagesInAll / 2);
                int warm = done.get();
                long began = System.nanoTime();
                Await.until(Duration.ofMinutes(5), () -> "all of them are done", () -> done.get() >= stagesInAll);
                seconds = (System.nanoTime() - began) / 1e9 * stagesInAll / 2 / (stagesInAll - warm);
            }
            double perSecond = stagesInAll / seconds;
            double bare = bareTransactions(harbour);
            row("engine: durable stage transitions per second, one replica", number("%.0f /s, %.0f %% of bare (%.0f /s)", perSecond, 100 * perSecond / bare, bare),
                    "≥ 50 %", "a JDBC loop of " + THREADS + " threads on the same database: select run for update, update run, update stage, insert work, "
                            + "insert live_event, commit. Ours is the second half of " + stagesInAll + " stages, and includes HTTP, JSON and the agents' side on the same cores");
        }
    }

    private static void work(Harbour harbour, String secret, AtomicInteger done, int all) {
        Client agent = new Client(harbour.address(), secret);
        while (done.get() < all) {
            JsonNode work = agent.post("/agent/v1/work?waitMillis=200", Map.of("held", List.of())).body();
            if (work.has("leaseToken")) {
                new Client(harbour.address(), work.path("leaseToken").asString()).post("/agent/v1/lease/result",
                        Map.of("fence", work.path("fence").asLong(), "outcome", "PASSED", "reason", "", "touched", true)).good();
                done.incrementAndGet();
            }
        }
    }

    private static double bareTransactions(Harbour harbour) throws Exception {
        Map<String, String> settings = new java.util.HashMap<>();
        harbour.database.settings().forEach(setting -> settings.put(setting.split("=", 2)[0], setting.split("=", 2)[1]));
        String url = "jdbc:mariadb://127.0.0.1:" + settings.get("paseo.database.port") + "/" + settings.get("paseo.database.name");
        int each = 150;
        long began = System.nanoTime();
        try (ExecutorService threads = Executors.newFixedThreadPool(THREADS)) {
            List<Future<Integer>> all = new ArrayList<>();
            for (int thread = 0; thread < THREADS; thread++) {
                int run = thread + 1;
                all.add(threads.submit(() -> bareTransactions(url, settings, run, each)));
            }
            for (Future<Integer> one : all) {
                one.get();
            }
        }
        return THREADS * each / ((System.nanoTime() - began) / 1e9);
    }

    private static int bareTransactions(String url, Map<String, String> settings, int run, int count) throws SQLException {
        try (Connection connection = DriverManager.getConnection(url, settings.get("paseo.database.service"), settings.get("paseo.database.service-password"))) {
            connection.setAutoCommit(false);
            for (int at = 0; at < count; at++) {
                for (String sql : List.of("select state from run where id = ? for update", "update run set revision = revision + 1, state = state where id = ?",
                        "update stage set started_at = utc_timestamp(6) where run_id = ? and position = 0",
                        "insert into work (kind, run_id, status, offered_at) values ('STAGE', ?, 'ended', utc_timestamp(6))",
                        "insert into live_event (kind, subject, at) values ('bench', ?, utc_timestamp(6))")) {
                    try (PreparedStatement statement = connection.prepareStatement(sql)) {
                        statement.setInt(1, run);
                        statement.execute();
                    }
                }
                connection.commit();
            }
        }
        return count;
    }

    private void client() throws Exception {
        try (Harbour harbour = new Harbour()) {
            harbour.startService();
            harbour.accounts();
            String[] client = {TestDatabase.ROOT.resolve("script/paseo").toString(), "where"};
            String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
            String[] empty = {java, "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xlog:disable", "-cp", System.getProperty("paseo.empty"), "dev.paseo.e2e.Empty"};
            String[] curl = {"curl", "-s", "-o", "/dev/null", "-H", "Authorization: Bearer " + harbour.as("developer").token(), harbour.address() + "/api/v1/whereabouts"};
            double ours = median(harbour, client);
            double bare = median(harbour, empty);
            row("client: `paseo where`", number("%.0f ms, %.0f ms over an empty program (%.0f ms); curl %.0f ms", ours, ours - bare, bare, median(harbour, curl)),
                    "< 150 ms over", "an empty `main` on the same JVM flags, medians of 15 starts; curl of the same call");
        }
    }

    private static double median(Harbour harbour, String... command) throws Exception {
        List<Double> times = new ArrayList<>();
        for (int start = 0; start < 18; start++) {
            ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD);
            builder.environment().putAll(Map.of("PASEO_SERVICE", harbour.address(), "PASEO_TOKEN", harbour.as("developer").token()));
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
