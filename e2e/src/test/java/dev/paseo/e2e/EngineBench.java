package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.service.agent.EngineLoad;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.springframework.context.ConfigurableApplicationContext;

/** How fast the engine moves runs: alone, with a thousand of them active, and with a long history behind it. */
final class EngineBench {

    private static final int RUNS = 400;
    private static final int STAGES = 5;
    private static final int THREADS = 8;
    private static final int ACTIVE = 1000;
    private static final int MOVES = 300;

    private final Figures figures;

    EngineBench(Figures figures) {
        this.figures = figures;
    }

    private static String file(int stages) {
        StringBuilder text = new StringBuilder(
                "paseo: 1\ncomponent: daylight-api\nversions: \"1.{serial}\"\nnewer-start: runs-beside\nstarts:\n  "
                        + "- push: [main]\nstages:\n");
        for (int stage = 0; stage < stages; stage++) {
            text.append("  stage-").append(stage).append(": {steps: ['true']}\n");
        }
        return text.toString();
    }

    private static void start(Park park, int runs) {
        for (int run = 0; run < runs; run++) {
            park.as("developer").post("/api/v1/runs", Map.of("component", "daylight-api")).good();
        }
        Await.until("all runs are prepared",
                () -> park.as("developer").get("/api/v1/runs?component=daylight-api&limit=200").body()
                        .path("runs").valueStream().noneMatch(run -> run.path("status").asString().equals("waiting")));
    }

    private static List<String> agents(Park park, int count) {
        List<String> names = new ArrayList<>();
        for (int agent = 0; agent < count; agent++) {
            names.add("bench-" + agent);
            String secret = "bench-" + agent + "-" + "x".repeat(40);
            new Client(park.address(), "")
                    .post("/agent/v1/enrolment", Map.of("token", park.invite(names.getLast()), "secret", secret))
                    .good();
        }
        return names;
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            ConfigurableApplicationContext service = park.startService();
            park.accounts();
            Repository repository = park.component();
            repository.push("developer", "main", Map.of("paseo.yaml", file(STAGES)));
            List<String> agents = agents(park, THREADS);
            EngineLoad load = new EngineLoad(service);
            start(park, RUNS - 1);
            double seconds = load.run(agents, RUNS * STAGES);
            double perSecond = RUNS * STAGES / seconds;
            double bare = bareTransactions(park);
            figures.row("engine: durable stage transitions per second, one replica",
                    number("%.0f /s, %.0f %% of bare (%.0f /s)", perSecond, 100 * perSecond / bare, bare),
                    "≥ 50 %",
                    new Figures.Limit(perSecond / bare, 0.5, true,
                            "a transition has about ten statements to the loop's five, a fifth of them seal a "
                                    + "version, and service and database share two cores"),
                    "a JDBC loop of " + THREADS
                            + " threads on the same database: select run for update, update run, update stage, "
                            + "insert work, insert live_event, "
                            + "commit. Ours is the second half of " + RUNS * STAGES
                            + " stages, each taken and ended: two transitions, each a transaction");
            growth(park, load, agents, perSecond);
        }
        try (Park park = new Park()) {
            active(park);
        }
    }

    private void active(Park park) throws Exception {
        ConfigurableApplicationContext service = park.startService();
        park.accounts();
        Repository repository = park.component();
        repository.push("developer", "main", Map.of("paseo.yaml", file(40)));
        agents(park, 1);
        EngineLoad load = new EngineLoad(service);
        start(park, ACTIVE - 1);
        Deque<EngineLoad.Held> held = new ArrayDeque<>();
        for (Optional<EngineLoad.Held> next = load.take("bench-0"); next.isPresent(); next = load.take("bench-0")) {
            held.add(next.get());
        }
        List<Double> moves = new ArrayList<>();
        for (int move = 0; move < MOVES; move++) {
            long began = System.nanoTime();
            load.end(held.removeFirst());
            Optional<EngineLoad.Held> next = load.take("bench-0");
            while (next.isEmpty()) {
                next = load.take("bench-0");
            }
            held.add(next.get());
            moves.add((System.nanoTime() - began) / 1e6);
        }
        System.gc();
        double heap = (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) / 1e6;
        figures.row("1,000 runs active at once",
                number("%.0f active; a move takes p50 %.0f ms, p99 %.0f ms; %.0f MB of heap, with the bench",
                        held.size(), percentile(moves, 0.5),
                        percentile(moves, 0.99), heap),
                "a move at least every 5 s; heap < 512 MB", new Figures.Limit(percentile(moves, 1), 5000, false, ""),
                "each run with one stage at an agent; " + MOVES + " times a stage ends and the next one is taken");
    }

    private void growth(Park park, EngineLoad load, List<String> agents, double first) throws Exception {
        StringBuilder words = new StringBuilder();
        int history = RUNS;
        for (int wanted : List.of(1_000, 10_000, 100_000)) {
            grow(park, history, wanted);
            history = wanted;
            start(park, 60);
            double rate = 60 * STAGES / load.run(agents, 60 * STAGES);
            double page = page(park);
            words.append(number("%,.0f runs: %.0f /s, a run's page %.1f ms; ", wanted, rate, page));
        }
        figures.row("growth with the history of runs", words.toString().strip(), "flat, or logarithmic",
                "the rows are copies of real ones; the rates come from few runs and scatter");
    }

    private static double page(Park park) {
        List<Double> times = new ArrayList<>();
        for (int look = 0; look < 30; look++) {
            long began = System.nanoTime();
            park.as("developer").get("/api/v1/runs/daylight-api/" + (1 + look * 7)).good();
            times.add((System.nanoTime() - began) / 1e6);
        }
        return percentile(times, 0.5);
    }

    /** Copies ended runs with their stages and work until there are so many. */
    private static void grow(Park park, int from, int to) throws SQLException {
        Map<String, String> settings = settings(park);
        try (Connection connection = DriverManager.getConnection(url(settings), settings.get("paseo.database.service"),
                settings.get("paseo.database.service-password"));
                Statement statement = connection.createStatement()) {
            int copies = (to - from) / RUNS + 1;
            for (int copy = 0; copy < copies; copy++) {
                statement.execute("set @most = (select max(number) from run), @id = (select max(id) from run)");
                statement.execute(
                        """
                        insert into run (component_id, number, line_id, commit_id, branch, trusted, pipeline_file_id, \
                        cause_id, version_number, commit_summary, commit_author,
                          status, state, format, revision, created_at, started_at, ended_at, prepared)
                        select component_id, @most + number, line_id, commit_id, branch, trusted, pipeline_file_id, \
                        cause_id, concat('0.', @most + number), commit_summary, commit_author,
                          status, state, format, revision, created_at, started_at, ended_at, prepared from run where \
                        number <= %d and status = 'passed'"""
                                .formatted(RUNS));
                statement.execute(
                        """
                        insert into stage (run_id, position, name, variant, attempt, status, started_at, ended_at)
                        select n.id, s.position, s.name, s.variant, s.attempt, s.status, s.started_at, s.ended_at
                        from run n join run o on o.number = n.number - @most and o.component_id = n.component_id join \
                        stage s on s.run_id = o.id where n.id > @id""");
                statement.execute(
                        "insert into work (kind, run_id, stage_id, status, offered_at, taken_at, ended_at) select "
                                + "'STAGE', run_id, id, 'ended', started_at, started_at, ended_at "
                                + "from stage where run_id > @id");
            }
            statement.execute("update counter set last = (select max(number) from run) where scope = 'run'");
            statement.execute("analyze table run, stage, work");
        }
    }

    private static Map<String, String> settings(Park park) {
        Map<String, String> settings = new HashMap<>();
        park.database.settings().forEach(setting -> settings.put(setting.split("=", 2)[0], setting.split("=", 2)[1]));
        return settings;
    }

    private static String url(Map<String, String> settings) {
        return "jdbc:mariadb://127.0.0.1:" + settings.get("paseo.database.port") + "/"
                + settings.get("paseo.database.name");
    }

    private static double bareTransactions(Park park) throws Exception {
        Map<String, String> settings = settings(park);
        int each = 250;
        long began = System.nanoTime();
        try (ExecutorService threads = Executors.newFixedThreadPool(THREADS)) {
            List<Future<Integer>> all = new ArrayList<>();
            for (int thread = 0; thread < THREADS; thread++) {
                int run = thread + 1;
                all.add(threads.submit(() -> bareTransactions(settings, run, each)));
            }
            for (Future<Integer> one : all) {
                one.get();
            }
        }
        return THREADS * each / ((System.nanoTime() - began) / 1e9);
    }

    private static int bareTransactions(Map<String, String> settings, int run, int count) throws SQLException {
        try (Connection connection = DriverManager.getConnection(url(settings), settings.get("paseo.database.service"),
                settings.get("paseo.database.service-password"))) {
            connection.setAutoCommit(false);
            for (int at = 0; at < count; at++) {
                for (String sql : List.of("select state from run where id = ? for update",
                        "update run set revision = revision + 1, state = state where id = ?",
                        "update stage set started_at = utc_timestamp(6) where run_id = ? and position = 0",
                        "insert into work (kind, run_id, status, offered_at) values ('STAGE', ?, 'ended', "
                                + "utc_timestamp(6))",
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
}
