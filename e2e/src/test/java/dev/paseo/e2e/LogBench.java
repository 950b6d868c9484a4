package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Logs and reports: how fast lines are kept, how soon they are seen, and how long a page of a large log takes. */
final class LogBench {

    private static final int LINES = 1_300_000;
    private static final int CASES = 100_000;

    private final Figures figures;

    LogBench(Figures figures) {
        this.figures = figures;
    }

    private static String file(String stage) {
        return "paseo: 1\ncomponent: pour\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages: {pour: {" + stage
                + "}}\n";
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.bring("pour", Map.of());
            Path text = park.folder.resolve("text");
            String line = "%07d the sun table of the north path is printed here, with minutes\n";
            try (var out = Files.newBufferedWriter(text)) {
                for (int at = 0; at < LINES; at++) {
                    out.write(line.formatted(at));
                }
            }
            throughput(park, repository, text);
            pages(park);
            visible(park, repository);
            report(park, repository);
        }
    }

    private void throughput(Park park, Repository repository, Path text) throws Exception {
        long began = System.nanoTime();
        new ProcessBuilder("sh", "-c", "cat '" + text + "' > '" + text + ".copy'").start().waitFor();
        double cat = LINES / ((System.nanoTime() - began) / 1e9);
        repository.push("developer", "main", Map.of("paseo.yaml", file("steps: ['cat " + text + "']")));
        JsonNode stage = ends(park, 1).path("stages").path(0);
        double seconds = Duration.between(Instant.parse(stage.path("startedAt").asString()),
                Instant.parse(stage.path("endedAt").asString())).toMillis() / 1000.0;
        figures.row("log: lines per second from one step, kept",
                number("%,.0f lines/s (%.0f MB in %.1f s), %.1f %% of cat (%,.0f lines/s)", LINES / seconds,
                        Files.size(text) / 1e6, seconds, 100 * LINES / seconds / cat, cat),
                "≥ 100,000 lines/s", new Figures.Limit(LINES / seconds, 100_000, true, ""),
                "`cat` of the same text to a file; ours is the whole stage, checkout included");
    }

    private static JsonNode ends(Park park, long number) {
        Await.until(Duration.ofMinutes(5), () -> "pour#" + number + " ends",
                () -> park.run("pour", number).path("run").has("endedAt"));
        return park.run("pour", number);
    }

    private void pages(Park park) {
        List<Double> times = new ArrayList<>();
        for (int page = 0; page < 60; page++) {
            long from = 1 + page * 7919L * 977 % (LINES - 600);
            long began = System.nanoTime();
            int lines = park.as("developer").get("/api/v1/runs/pour/1/stages/pour/log?limit=500&from=" + from).good()
                    .path("lines").size();
            times.add((System.nanoTime() - began) / 1e6);
            if (lines != 500) {
                throw new IllegalStateException(lines + " lines");
            }
        }
        figures.row("any page of a 100 MB log",
                number("p50 %.0f ms, p99 %.0f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 100 ms",
                new Figures.Limit(percentile(times, 0.99), 100, false, "a block is unpacked and decoded whole"),
                "60 pages of 500 lines, all over the log above");
    }

    /** From the moment a line is written to the moment at which somebody who waits for it has it. */
    private void visible(Park park, Repository repository) throws Exception {
        repository.push("developer", "main",
                Map.of("paseo.yaml", file("steps: ['for i in $(seq 60); do date +%s%N; sleep 0.1; done']")));
        Await.until("it runs",
                () -> park.run("pour", 2).path("stages").path(0).path("status").asString().equals("running"));
        List<Double> delays = new ArrayList<>();
        long from = 1;
        boolean ended = false;
        while (!ended) {
            JsonNode log = park.as("developer")
                    .get("/api/v1/runs/pour/2/stages/pour/log?newest=true&limit=50&waitMillis=5000&from=" + from)
                    .good();
            Instant now = Instant.now();
            for (JsonNode line : log.path("lines")) {
                if (line.path("step").asInt() == 1) {
                    long nanos = Long.parseLong(line.path("text").asString());
                    delays.add(Duration.between(Instant.ofEpochSecond(0, nanos), now).toNanos() / 1e6);
                }
            }
            from = log.path("next").asLong();
            ended = log.path("ended").asBoolean();
        }
        figures.row("log: a line is visible after",
                number("p50 %.0f ms, p99 %.0f ms", percentile(delays, 0.5), percentile(delays, 0.99)), "< 300 ms",
                new Figures.Limit(percentile(delays, 0.99), 300, false, ""),
                delays.size() + " lines, ten a second, by the API that the page uses");
    }

    private void report(Park park, Repository repository) throws Exception {
        Path report = park.folder.resolve("report.xml");
        StringBuilder xml = new StringBuilder("<testsuite name='many'>\n");
        for (int at = 0; at < CASES; at++) {
            xml.append("<testcase classname='park.daylight.Suite").append(at / 100).append("' name='test number ")
                    .append(at).append("' time='0.001'>")
                    .append(at % 1000 == 0 ? "<failure message='off'>expected 1, got 2</failure>" : "")
                    .append("</testcase>\n");
        }
        Files.writeString(report, xml.append("</testsuite>\n"));
        repository.push("developer", "main",
                Map.of("paseo.yaml", file("steps: ['cp " + report + " report.xml'], reports: {tests: report.xml}")));
        System.gc();
        long before = Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
        JsonNode stage = ends(park, 3).path("stages").path(0);
        System.gc();
        double grown = (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory() - before) / 1e6;
        Instant stepEnded = Instant.parse(stage.path("steps").path(0).path("endedAt").asString());
        double seconds = Duration.between(stepEnded, Instant.parse(stage.path("endedAt").asString())).toMillis()
                / 1000.0;
        figures.row("a JUnit report of 100,000 cases",
                number("%.1f s from the step's end to the stage's, %.0f MB (%.1f MB kept in memory afterwards)",
                        seconds, Files.size(report) / 1e6, grown),
                "–", "packed, sent, kept, read as a stream, 100 failures stored");
    }
}
