package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.agent.Agent;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import tools.jackson.databind.JsonNode;

/** How fast places are looked up among very many deployments, and what deploying adds to the recipe. */
final class DeployingBench {

    private static final int COMPONENTS = 1000;
    private static final int ENVIRONMENTS = 10;
    private static final int DEPLOYMENTS = 1_000_000;
    private static final int HOSTS = 100;
    private static final int BATCH = 10;
    private static final int FAN = 20;
    private static final int MEGABYTES = 200;

    private final Figures figures;

    DeployingBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        whereabouts();
        rolling();
        fan();
    }

    void whereabouts() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            new Crowd(COMPONENTS, ENVIRONMENTS, DEPLOYMENTS).into(park);
            List<String> pages = pages(park);
            List<Double> now = times(40, at -> List.of(pages.get(at % pages.size())), park);
            List<Double> whole = times(10, at -> pages, park);
            long first = Instant.parse("2026-01-01T00:00:00Z").getEpochSecond();
            List<Double> then = times(40,
                    at -> List
                            .of("/api/v1/whereabouts/at?moment=" + Instant.ofEpochSecond(first + 1000L + at * 20_000L)),
                    park);
            List<Double> key = times(40, at -> List.of("/api/v1/places/hut-" + (1 + at) + "/env-3"), park);
            figures.row("whereabouts, 1,000 components × 10 environments, 1,000,000 deployments", number(
                    "p50 %.0f ms, p99 %.0f ms for 25 components; all forty pages one after the other p50 %.0f ms; "
                            + "one place by its key p50 %.0f ms",
                    percentile(now, 0.5), percentile(now, 0.99), percentile(whole, 0.5), percentile(key, 0.5)),
                    "p99 < 50 ms",
                    new Figures.Limit(percentile(now, 0.99), 50, false,
                            "250 places are looked up, put into words and sent"),
                    "as the console asks, which shows the first twenty-five while it asks for the rest; warm");
            figures.row("what was live at a past moment",
                    number("p50 %.0f ms, p99 %.0f ms", percentile(then, 0.5), percentile(then, 0.99)), "< 100 ms",
                    new Figures.Limit(percentile(then, 0.99), 100, false,
                            "one look at an index for each of 250 places, put into words and sent"),
                    "the same 1,000,000 deployments; 40 moments, 25 components each");
        }
    }

    /** The addresses of the pages of whereabouts. */
    private static List<String> pages(Park park) throws IOException {
        List<String> pages = new ArrayList<>();
        String after = "";
        do {
            pages.add("/api/v1/whereabouts?after=" + after);
            after = park.as("developer").get(pages.getLast()).body().path("next").asString("");
        } while (!after.isEmpty());
        return pages;
    }

    private interface Asked {
        List<String> paths(int at);
    }

    private static List<Double> times(int count, Asked asked, Park park) throws IOException {
        List<Double> times = new ArrayList<>();
        Client client = park.as("developer");
        for (int at = -10; at < count; at++) {
            long began = System.nanoTime();
            for (String path : asked.paths(Math.max(0, at))) {
                client.text(path);
            }
            if (at >= 0) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        return times;
    }

    /**
     * A component whose recipe is next to nothing, on so many hosts, each with an identity of its own in this process.
     */
    private static Park onHosts(int hosts, String strategy, String build) throws IOException, InterruptedException {
        Park park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder");
        String names = IntStream.rangeClosed(1, hosts).mapToObj(at -> "shed-" + at + ": {}")
                .collect(Collectors.joining(", "));
        Map<String, String> files = new LinkedHashMap<>();
        files.put("paseo.yaml",
                "paseo: 1\ncomponent: daylight-api\nversions: \"1.4.{serial}\"\nstarts:\n  - push: "
                        + "[main]\nstages:\n  build:\n    steps: ['"
                        + build
                        + "']\n    keep: {app: app.bin}\ndeployment:\n  strategy: " + strategy
                        + "\n  on-each-host: ['cp \"$PASEO_ARTIFACTS/app/app.bin\" \"$PASEO_HOST_FOLDER/app.bin\"']\n");
        Repository repository = park.component();
        park.as("admin")
                .put("/api/v1/environments", Map.of("text",
                        "environments:\n  production:\n    components:\n      daylight-api: {hosts: {" + names + "}}\n",
                        "loosen", true))
                .good();
        for (int at = 1; at <= hosts; at++) {
            String name = "shed-" + at;
            String token = park.as("admin")
                    .post("/api/v1/agents", Map.of("name", name, "offers", List.of(), "host", name)).good()
                    .path("token").asString();
            Agent agent = new Agent(URI.create(park.address()), park.folder.resolve("agents").resolve(name),
                    park.folder.resolve("piers").resolve(name), Agent.Options.usual(2));
            agent.enrol(token);
            Thread.ofVirtual().start(() -> {
                try {
                    agent.run();
                } catch (IOException | InterruptedException ended) {
                    // The park is closing.
                }
            });
            park.closeToo(agent);
        }
        repository.push("developer", "main", files);
        Await.until(Duration.ofMinutes(5), () -> "it is sealed",
                () -> park.as("developer").get("/api/v1/versions/daylight-api").body().size() == 1);
        return park;
    }

    private static double deployed(Park park, String version) {
        long id = park.promote(version, "production");
        Await.until(Duration.ofMinutes(10), () -> "it is live, but " + park.deployment(id).path("deployment"),
                () -> park.as("developer").get("/api/v1/history/daylight-api/production").body().path(0).path("status")
                        .asString().equals("live"));
        JsonNode deployment = park.deployment(id).path("deployment");
        return Duration.between(Instant.parse(deployment.path("startedAt").asString()),
                Instant.parse(deployment.path("liveAt").asString())).toNanos() / 1e6;
    }

    private static double shell(Path folder, String script) throws IOException, InterruptedException {
        long began = System.nanoTime();
        Process process = new ProcessBuilder("sh", "-ec", script).directory(folder.toFile()).inheritIO().start();
        if (process.waitFor() != 0) {
            throw new IOException(script + " failed");
        }
        return (System.nanoTime() - began) / 1e6;
    }

    void rolling() throws Exception {
        try (Park park = onHosts(HOSTS, "{rolling: {batch: " + BATCH + "}}", "echo times > app.bin")) {
            deployed(park, "1.4.1");
            // The service is a long-running one: what is measured is not the first deployment of its life.
            park.as("developer").post("/api/v1/runs", Map.of("component", "daylight-api")).good();
            Await.until(Duration.ofMinutes(2), () -> "it is sealed",
                    () -> park.as("developer").get("/api/v1/versions/daylight-api").body().size() == 2);
            double whole = deployed(park, "1.4.2");
            Path scratch = Files.createDirectories(park.folder.resolve("scratch"));
            Files.writeString(scratch.resolve("from"), "times\n");
            shell(scratch, "true");
            double recipe = shell(scratch, "for i in $(seq " + HOSTS / BATCH + "); do for j in $(seq " + BATCH
                    + "); do sh -ec 'cp from to-'$j & done; wait; done");
            double added = (whole - recipe) / HOSTS;
            figures.row("a rolling deployment to 100 hosts, ten at a time",
                    number("%.1f s, of which the recipe %.1f s: %.1f ms a host added", whole / 1000, recipe / 1000,
                            added),
                    "< 50 ms a host over the recipe",
                    new Figures.Limit(added, 50, false,
                            "each host is a piece of work, leased, reported and decided about in durable transactions"),
                    "100 identities in one agent process, the second deployment after their start; the recipe "
                            + "copies a small file; forked in the same batches");
        }
    }

    void fan() throws Exception {
        try (Park park = onHosts(FAN, "together", "head -c " + (MEGABYTES << 20) + " /dev/urandom > app.bin")) {
            double ours = deployed(park, "1.4.1");
            Path scratch = Files.createDirectories(park.folder.resolve("scratch"));
            Files.copy(park.folder.resolve("piers/shed-1/app.bin"), scratch.resolve("from"));
            double plain = shell(scratch, "for j in $(seq " + FAN
                    + "); do { cp from to-$j; sha256sum to-$j > /dev/null; cp to-$j installed-$j; } & done; wait");
            figures.row("200 MB to 20 hosts",
                    number("%.1f s; cp + sha256sum, and the recipe's cp, in 20 places %.1f s: %.0f %%", ours / 1000,
                            plain / 1000, 100 * plain / ours),
                    "≥ 60 %",
                    new Figures.Limit(100 * plain / ours, 60, true,
                            "the bytes go through HTTP once for each host, on the same two cores"),
                    "all at once, service and agents and their disks on one machine");
        }
    }
}
