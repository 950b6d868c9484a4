package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching;
import dev.paseo.core.trigger.Trigger;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** How fast and how surely runs are started. */
final class StartingBench {

    private static final int TRIGGERS = 10_000;
    private static final int HOOKS_A_MINUTE = 1000;
    private static final int SENDERS = 20;
    private static final int REPOSITORIES = 500;
    private static final int COMPONENTS = 1000;
    private static final int MINUTES = Integer.getInteger("paseo.hook-minutes", 10);

    private final Figures figures;

    StartingBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        matching();
        hooks();
        polls();
        chain();
    }

    void matching() {
        BranchRules rules = BranchRules.of(List.of("feature/*"), List.of("main"));
        List<Matching.InForce> triggers = IntStream.range(0, TRIGGERS).mapToObj(at -> new Matching.InForce(
                "component-" + at, 0,
                at % 2 == 0 ? new Trigger.Upstream(List.of("sun-model"),
                        List.of(new BranchPattern("season/*"), new BranchPattern("main")),
                        Set.of(at % 4 == 0 ? Trigger.RunEnd.PASSED : Trigger.RunEnd.FAILED), false, Trigger.Novelty.ANY)
                        : new Trigger.Push(List.of(new BranchPattern("main")), List.of()),
                rules, "main", Optional.<String>empty())).toList();
        Event event = new Event.RunEnded("sun-model", 3, "main", true, Trigger.RunEnd.PASSED, Optional.empty());
        List<Double> times = new ArrayList<>();
        int found = 0;
        for (int at = 0; at < 120; at++) {
            long began = System.nanoTime();
            found = Matching.match(event, triggers).size();
            if (at >= 20) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        figures.row("one event against 10,000 triggers",
                number("p50 %.2f ms, p99 %.2f ms; %.0f concerned", percentile(times, 0.5), percentile(times, 0.99),
                        found),
                "< 5 ms",
                new Figures.Limit(percentile(times, 0.99), 5, false, ""),
                "100 times, warm; half of them name the event's component, each with two patterns");
    }

    void hooks() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            int wanted = HOOKS_A_MINUTE * MINUTES;
            AtomicInteger sent = new AtomicInteger();
            AtomicInteger refused = new AtomicInteger();
            List<Double> times = Collections.synchronizedList(new ArrayList<>());
            CountDownLatch done = new CountDownLatch(SENDERS);
            long began = System.nanoTime();
            for (int sender = 0; sender < SENDERS; sender++) {
                String name = "hut-" + sender;
                Repository repository = park.bring(name, Map.of());
                Files.delete(park.folder.resolve("repositories/" + name + ".git/hooks/post-receive"));
                repository.push("developer", "main", Map.of("paseo.yaml", "paseo: 1\ncomponent: " + name
                        + "\nversions: \"1.{serial}\"\nstarts:\n  - push: [main]\n"
                        + "newer-start: runs-beside\nstages:\n  build: {wants: [an-agent-that-is-not-here], steps: "
                        + "['true']}\n"));
                byte[] key = Base64.getDecoder().decode(park.as("release-engineer")
                        .text("/api/v1/components/" + name + "/hook").replaceAll("(?s).*secret='([^']*)'.*", "$1"));
                List<String> commits = repository.commits(wanted / SENDERS + 1);
                Thread.ofPlatform().start(() -> {
                    try {
                        for (int at = 1; at <= wanted / SENDERS; at++) {
                            long due = began + (long) ((at - 1) * 60e9 * SENDERS / HOOKS_A_MINUTE);
                            LockSupport.parkNanos(Math.max(0, due - System.nanoTime()));
                            repository.raw("refs/heads/main", commits.get(at));
                            long asked = System.nanoTime();
                            if (!hook(park, name, key, "m" + at)) {
                                refused.incrementAndGet();
                            }
                            times.add((System.nanoTime() - asked) / 1e6);
                            sent.incrementAndGet();
                        }
                    } catch (Exception failed) {
                        failed.printStackTrace();
                    } finally {
                        done.countDown();
                    }
                });
            }
            done.await();
            double minutes = (System.nanoTime() - began) / 60e9;
            int runs = Integer.parseInt(park.database.as("select count(*) from run").strip());
            int commits = Integer
                    .parseInt(park.database.as("select count(distinct component_id, commit_id) from run").strip());
            figures.row("1,000 hooks a minute for ten minutes", number(
                    "%.0f hooks in %.1f min, %.0f refused; %.0f runs of %.0f commits: %.0f lost, %.0f doubled; "
                            + "answered in p50 %.0f ms, p99 %.0f ms",
                    sent.get(), minutes, refused.get(), runs, commits, sent.get() - commits, runs - commits,
                    percentile(times, 0.5), percentile(times, 0.99)),
                    "none lost, none doubled",
                    SENDERS + " repositories, each hook after a commit of its own; nothing runs, since no agent has "
                            + "the tag that is wanted");
        }
    }

    private static boolean hook(Park park, String name, byte[] key, String id) throws Exception {
        String body = "{\"pusher\":\"developer\"}";
        long at = System.currentTimeMillis() / 1000;
        Mac mac = Mac.getInstance("HmacSHA256");
        mac.init(new SecretKeySpec(key, "HmacSHA256"));
        String signature = "v1," + Base64.getEncoder()
                .encodeToString(mac.doFinal((id + "." + at + "." + body).getBytes(StandardCharsets.UTF_8)));
        return new Client(park.address(), "").raw(
                HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofString(body)).header("webhook-id", id)
                        .header("webhook-timestamp", Long.toString(at)).header("webhook-signature", signature),
                "/hooks/v1/push/" + name).statusCode() == 200;
    }

    /** Processor time of this process and of the git processes that it waited for, in seconds. */
    private static double processor() throws IOException {
        String[] fields = Files.readString(Path.of("/proc/self/stat")).replaceFirst(".*\\) ", "").split(" ");
        return (Long.parseLong(fields[11]) + Long.parseLong(fields[12]) + Long.parseLong(fields[13])
                + Long.parseLong(fields[14])) / 100.0;
    }

    private static double share(Duration length) throws IOException {
        double before = processor();
        long began = System.nanoTime();
        long end = began + length.toNanos();
        while (System.nanoTime() < end) {
            LockSupport.parkNanos(end - System.nanoTime());
        }
        return 100 * (processor() - before) / ((System.nanoTime() - began) / 1e9);
    }

    void polls() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.poll=60s");
            park.accounts();
            double idle = share(Duration.ofSeconds(60));
            Repository model = new Repository(park.folder.resolve("repositories"), "model");
            model.push("developer", "main", Map.of("paseo.yaml", "paseo: 1\ncomponent: x\nversions: \"1.{serial}\"\n"));
            StringBuilder rows = new StringBuilder(
                    "insert into component (name, repository, file_path, main_branch, created_at) values ");
            for (int at = 0; at < REPOSITORIES; at++) {
                model.copy("hut-" + at);
                rows.append(at == 0 ? "" : ",").append("('hut-").append(at).append("', 'file://").append(park.folder)
                        .append("/repositories/hut-").append(at)
                        .append(".git', 'paseo.yaml', 'main', utc_timestamp(6))");
            }
            park.tamper(rows.toString());
            Await.until(Duration.ofMinutes(5), () -> "all were looked at", () -> looked(park) == REPOSITORIES);
            share(Duration.ofSeconds(60));
            double busy = share(Duration.ofSeconds(120));
            figures.row("500 local repositories polled each minute",
                    number("%.1f %% of one core (%.1f %% with the service idle at %.1f %%)", busy - idle, busy, idle),
                    "< 10 % of one core",
                    new Figures.Limit(busy - idle, 10, false, "each listing is a git process"),
                    "processor time of the service and of its git processes over two minutes, without that of the "
                            + "idle service");
        }
    }

    private static int looked(Park park) {
        try {
            return Integer.parseInt(
                    park.database.as("select count(*) from repository_poll where looked_at is not null").strip());
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            return 0;
        }
    }

    void chain() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            StringBuilder components = new StringBuilder(
                    "insert into component (name, file_path, main_branch, created_at) values ");
            for (int at = 0; at < COMPONENTS; at++) {
                components.append(at == 0 ? "" : ",").append("('hut-").append(at)
                        .append("', 'paseo.yaml', 'main', utc_timestamp(6))");
            }
            park.tamper(components.toString());
            park.database.as(
                    "insert into start_trigger (component_id, position, kind, source) select id, 0, 'upstream', "
                            + "concat('hut-', (id - 1) div 3) from component where id > 1");
            park.database.as("insert into line (component_id, branch) select id, 'main' from component");
            park.database.as(
                    "insert into pipeline_file (component_id, commit_id, text, problems, read_at) select id, 'c', "
                            + "'', '[]', utc_timestamp(6) from component");
            park.database.as("insert into cause (kind, body, at) values ('push', '{}', utc_timestamp(6))");
            park.database.as(
                    "insert into run (component_id, number, line_id, commit_id, branch, trusted, pipeline_file_id, "
                            + "cause_id, version_number, commit_summary, commit_author, status, state, "
                            + "format, revision, created_at) select c.id, n.seq, l.id, 'c', 'main', true, f.id, "
                            + "(select min(id) from cause), concat('1.', n.seq), 'x', 'y', 'passed', '{}', 2, 0, "
                            + "utc_timestamp(6) "
                            + "from component c join line l on l.component_id = c.id join pipeline_file f on "
                            + "f.component_id = c.id join seq_1_to_50 n");
            park.database.as(
                    "insert into trigger_event (component_id, kind, event_key, sentence, actor, cause_id, at) "
                            + "select component_id, 'run', concat('#', number), concat('run ', number), 'x', "
                            + "cause_id, utc_timestamp(6) from run");
            park.database.as(
                    "insert into considered (event_id, component_id, source_id, position, words, run_id) select "
                            + "e.id, t.component_id, e.component_id, 0, 'upstream', "
                            + "(select min(id) from run where component_id = t.component_id) from trigger_event e "
                            + "join component u on u.id = e.component_id join start_trigger t on t.source = u.name");
            Client client = park.as("developer");
            List<Double> times = new ArrayList<>();
            for (int at = 0; at < 60; at++) {
                long asked = System.nanoTime();
                client.get("/api/v1/chain").good();
                if (at >= 20) {
                    times.add((System.nanoTime() - asked) / 1e6);
                }
            }
            figures.row("the Chain page's data for 1,000 components",
                    number("p50 %.0f ms, p99 %.0f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 200 ms",
                    new Figures.Limit(percentile(times, 0.99), 200, false,
                            "the newest of 50,000 runs and events of each are looked up"),
                    "999 ways, 50,000 runs and as many events; whole answers, read and parsed");
        }
    }
}
