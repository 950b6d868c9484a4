package dev.paseo.e2e;

import ch.qos.logback.classic.Level;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.LoggerFactory;

/**
 * Good components are pushed and deployed all the while that everything odd comes in: commits, files, hooks, bodies,
 * names. The service is a process of its own with 256 MB of heap. Prints a table; exits 1 where something good was not
 * done in time, a request was answered with a failure of ours, or memory or threads grew.
 */
public final class Soak {

    private static final Duration IN_TIME = Duration.ofSeconds(30);
    private static final String HEAP = "-Xmx256m";

    private final Park park;
    private final Random random = new Random(20_261_128);
    private final Map<String, AtomicInteger> done = new LinkedHashMap<>();
    private final List<Long> starts = Collections.synchronizedList(new ArrayList<>());
    private final AtomicInteger failures = new AtomicInteger();
    private volatile boolean over;

    private Soak(Park park) {
        this.park = park;
    }

    public static void main(String[] arguments) throws Exception {
        ((ch.qos.logback.classic.Logger) LoggerFactory.getLogger("ROOT")).setLevel(Level.WARN);
        Duration length = Duration.ofSeconds(arguments.length > 0 ? Long.parseLong(arguments[0]) : 600);
        int exit;
        try (Park park = new Park(); Processes processes = new Processes(park)) {
            int port = Processes.freePort();
            Process service = processes.service(port, HEAP);
            park.reach("http://127.0.0.1:" + port);
            park.accounts();
            for (String agent : park.agents()) {
                park.startAgent(agent);
            }
            exit = new Soak(park).run(service, length);
        }
        System.exit(exit);
    }

    private int run(Process service, Duration length) throws Exception {
        Repository good = park.component();
        good.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        Repository odd = park.bring("peculiar", Map.of("allowed", List.of("*", "*/*")));
        park.installHook(odd, "peculiar", script -> script);
        odd.push("developer", "main", Map.of("paseo.yaml", StartingTest.pipeline("peculiar", "- push: [main]")));
        long end = System.nanoTime() + length.toNanos();
        List<Thread> attackers = List.of(attack("odd commits", () -> oddCommit(odd)),
                attack("large files", () -> largeFile(odd)), attack("hooks nobody signed", this::hook),
                attack("bodies as nobody means them", this::body), attack("bodies of 3 MB", this::largeBody),
                attack("names of branches", () -> name(odd)));
        int pushes = 0;
        int late = 0;
        // The beginning is when everything has been asked for once: classes are loaded, pools are filled.
        long warm = System.nanoTime() + length.toNanos() / 10;
        Usage before = null;
        while (System.nanoTime() < end) {
            if (before == null && System.nanoTime() > warm) {
                before = new Usage(service);
            }
            long began = System.nanoTime();
            good.push("developer", "main", Map.of("README", "push " + pushes++));
            int number = pushes + 1;
            boolean started = within(IN_TIME,
                    () -> park.as("developer").get("/api/v1/runs/daylight-api/" + number).status() == 200);
            starts.add((System.nanoTime() - began) / 1_000_000);
            boolean live = started && within(IN_TIME.multipliedBy(2),
                    () -> park.live("staging").filter(version -> version.equals("1.4." + number)).isPresent());
            late += live ? 0 : 1;
        }
        over = true;
        for (Thread each : attackers) {
            each.join(Duration.ofSeconds(60));
        }
        Usage after = new Usage(service);
        boolean alive = service.isAlive()
                && park.as("admin").get("/actuator/health").body().path("status").asString().equals("UP");
        boolean grew = after.live() > before.live() * 1.2 + 10 || after.megabytes() > before.megabytes() + 100
                || after.threads() > before.threads() + 20;
        print(pushes, late, before, after, alive);
        return late == 0 && failures.get() == 0 && alive && !grew ? 0 : 1;
    }

    private void print(int pushes, int late, Usage before, Usage after, boolean alive) {
        List<Long> sorted = starts.stream().sorted().toList();
        System.out.println("| what | how it went |\n|---|---|");
        System.out.println("| good pushes, each started and live in staging in time | " + (pushes - late) + " of "
                + pushes + " |");
        System.out.println("| from the push to its run, ms | p50 " + sorted.get(sorted.size() / 2) + ", slowest "
                + sorted.getLast() + " |");
        done.forEach((what, count) -> System.out.println("| " + what + " | " + count + " |"));
        System.out.println("| answered with a failure of ours | " + failures + " |");
        System.out.println("| memory of the process (" + HEAP + "), MB | " + before.megabytes()
                + " after a tenth of the time, " + after.megabytes() + " at the end |");
        System.out.println("| what lives in its heap after a full collection, MB | " + before.live()
                + " after a tenth of the time, " + after.live() + " at the end |");
        System.out.println("| its threads | " + before.threads() + " after a tenth of the time, " + after.threads()
                + " at the end |");
        System.out.println("| alive, and its health up | " + (alive ? "yes" : "no") + " |");
    }

    private interface Attack {
        void once() throws Exception;
    }

    private Thread attack(String what, Attack attack) {
        AtomicInteger count = new AtomicInteger();
        done.put(what, count);
        return Thread.ofVirtual().name(what).start(() -> {
            while (!over) {
                try {
                    attack.once();
                    count.incrementAndGet();
                } catch (IOException | RuntimeException refused) {
                    count.incrementAndGet();
                } catch (Exception stop) {
                    return;
                }
            }
        });
    }

    private static boolean within(Duration limit, java.util.concurrent.Callable<Boolean> holds) throws Exception {
        long end = System.nanoTime() + limit.toNanos();
        while (System.nanoTime() < end) {
            if (holds.call()) {
                return true;
            }
            Thread.sleep(100);
        }
        return false;
    }

    private synchronized void oddCommit(Repository odd) throws Exception {
        String tree = odd.git("rev-parse", "main^{tree}").strip();
        List<String> who = List.of("A <a@x> 568971820800 +9999", "A <a@x>", "nobody", "A <a@x> -99999999999 -9999",
                "\u001f <\u001f> 1 +0000");
        String committer = who.get(random.nextInt(who.size()));
        Path object = Files.writeString(park.folder.resolve("soak-object"), "tree " + tree + "\nauthor " + committer
                + "\ncommitter " + committer + "\n\nodd \u001f " + random.nextInt() + "\n");
        String commit = odd.git("hash-object", "-t", "commit", "-w", "--literally", object.toString()).strip();
        odd.git("update-ref", "refs/heads/odd", commit);
        odd.git("push", "-q", "--force", "origin", "odd");
    }

    private synchronized void largeFile(Repository odd) throws Exception {
        odd.push("developer", "large/" + random.nextInt(5),
                Map.of("paseo.yaml", "paseo: 1\n#" + "x".repeat(20_000_000) + random.nextInt()));
    }

    private synchronized void name(Repository odd) throws Exception {
        odd.raw("refs/heads/"
                + List.of("-dash", "a;b", "season/öresund-明石", "x".repeat(230), "a'b\"c").get(random.nextInt(5)),
                odd.head());
        odd.git("push", "-q", "origin", "HEAD:refs/heads/n" + random.nextInt(200));
    }

    private void hook() throws Exception {
        sent(HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofString("x".repeat(random.nextInt(200_000))))
                .header("webhook-id", "x").header("webhook-timestamp", "soon")
                .header("webhook-signature", "v1,x"), "/hooks/v1/push/daylight-api");
    }

    private void body() throws Exception {
        List<String> bodies = List.of("{}", "null", "[]", "{\"component\":null}", "{\"component\":\"\u0000\"}",
                "{\"component\":", "\"x\"", "{\"component\":{\"a\":[[[[[[]]]]]]}}");
        sent(authorized().POST(HttpRequest.BodyPublishers.ofString(bodies.get(random.nextInt(bodies.size())))),
                List.of("/api/v1/runs", "/api/v1/deployments", "/api/v1/sets", "/api/v1/components")
                        .get(random.nextInt(4)));
    }

    private void largeBody() throws Exception {
        sent(authorized()
                .POST(HttpRequest.BodyPublishers.ofString("{\"component\":\"" + "x".repeat(3_000_000) + "\"}")),
                "/api/v1/runs");
    }

    private HttpRequest.Builder authorized() {
        return HttpRequest.newBuilder().header("Content-Type", "application/json").header("Authorization",
                "Bearer " + park.as("release-engineer").token());
    }

    private void sent(HttpRequest.Builder request, String path) throws IOException {
        int status = park.as("developer").raw(request, path).statusCode();
        if (status >= 500) {
            failures.incrementAndGet();
            System.err.println(status + " " + path);
        }
    }

    /** What a process uses now: of /proc, and of its heap what a full collection leaves. */
    private record Usage(long live, long megabytes, long threads) {

        Usage(Process process) throws IOException {
            this(liveHeap(process), read(process, "VmRSS:") / 1024, read(process, "Threads:"));
        }

        /** The last line of a histogram is "Total", the number of objects and their bytes. */
        private static long liveHeap(Process process) throws IOException {
            Process asking = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin/jcmd").toString(),
                    Long.toString(process.pid()), "GC.class_histogram").start();
            List<String> lines = new String(asking.getInputStream().readAllBytes(), StandardCharsets.UTF_8).lines()
                    .toList();
            return Long.parseLong(lines.getLast().strip().split("\\s+")[2]) >> 20;
        }

        private static long read(Process process, String name) throws IOException {
            return Files.readAllLines(Path.of("/proc/" + process.pid() + "/status")).stream()
                    .filter(line -> line.startsWith(name))
                    .map(line -> Long.parseLong(line.replaceAll("[^0-9]", ""))).findFirst().orElse(0L);
        }
    }
}
