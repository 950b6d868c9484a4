package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** How soon a component of which nothing is built is live after its push. */
final class TreeBench {

    private static final int PUSHES = 30;
    private static final int WARM = 5;
    private static final int PAGES = 200;

    private final Figures figures;

    TreeBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("test-1");
            Repository repository = park.bring("trail-notes", Map.of());
            park.as("admin").put("/api/v1/environments", Map.of("text",
                    "environments: {test: {components: {trail-notes: {hosts: {test-1: {}}}}}}\n", "loosen", true))
                    .good();
            Map<String, String> files = new LinkedHashMap<>();
            files.put("paseo.yaml", """
                    paseo: 1
                    component: trail-notes
                    versions: "1.{serial}"
                    starts: [{push: [main]}]
                    deployment:
                      on-each-host:
                        - mkdir -p "$PASEO_HOST_FOLDER/$PASEO_VERSION"
                        - tar -xf "$PASEO_ARTIFACTS/tree/tree.tar" -C "$PASEO_HOST_FOLDER/$PASEO_VERSION"
                    route: [{test: automatic}]
                    """);
            for (int page = 0; page < PAGES; page++) {
                files.put("page-" + page + ".html", ("<p>High above path " + page + "</p>\n").repeat(300));
            }
            List<Double> live = new ArrayList<>();
            List<Double> byHand = new ArrayList<>();
            for (int push = 1; push <= PUSHES + WARM; push++) {
                files.put("index.html", "<p>Day " + push + "</p>\n");
                long began = System.nanoTime();
                repository.push("developer", "main", files);
                String version = "1." + push;
                Await.until(version + " is live",
                        () -> park.live("trail-notes", "test").equals(Optional.of(version)));
                double took = (System.nanoTime() - began) / 1e6;
                double hand = byHand(repository.work(), Files.createDirectories(park.folder.resolve("hand-" + push)));
                if (push > WARM) {
                    live.add(took);
                    byHand.add(hand);
                }
            }
            figures.row("a component without a build: `git push` begun → live in the first environment",
                    number("p50 %.0f ms, p99 %.0f ms, %.0f × by hand (p50 %.0f ms)", percentile(live, 0.5),
                            percentile(live, 0.99), percentile(live, 0.5) / percentile(byHand, 0.5),
                            percentile(byHand, 0.5)),
                    "p50 < 2,000 ms",
                    new Figures.Limit(percentile(live, 0.5), 2000, false, "see above"),
                    "`git archive` and `tar -x` by hand of the same commit in the same run; 200 pages of "
                            + "7 kB; the commit itself and the push are counted");
        }
    }

    private static double byHand(Path repository, Path into) throws IOException, InterruptedException {
        long began = System.nanoTime();
        Process hand = new ProcessBuilder("sh", "-c", "git archive HEAD | tar -x -C \"$0\"", into.toString())
                .directory(repository.toFile()).inheritIO().start();
        if (hand.waitFor() != 0) {
            throw new IllegalStateException("git archive failed");
        }
        return (System.nanoTime() - began) / 1e6;
    }
}
