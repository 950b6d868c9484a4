package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** How long a file takes that is put together from pieces, and the table of those who use one. */
final class PieceBench {

    private static final int USES = 20;
    private static final int USERS = 1000;

    private final Figures figures;

    PieceBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        expansion();
        users();
    }

    private void expansion() {
        StringBuilder pieces = new StringBuilder("pieces:\n");
        StringBuilder user = new StringBuilder(
                "paseo: 1\ncomponent: daylight-api\nversions: \"1.{serial}\"\nstages:\n  like:\n");
        for (int at = 0; at < USES; at++) {
            pieces.append("""
                      piece-NUMBER:
                        inputs:
                          jar: {words: The file, kind: text}
                          agent: {words: What its agent offers, kind: list, default: [jdk25]}
                          limit: {words: How long, kind: duration, default: 5m}
                        may-change: [stages.compile-NUMBER.timeout]
                        stages:
                          compile-NUMBER:
                            wants: "{given.agent}"
                            steps: ["./build.sh {given.jar}"]
                            keep: {app-NUMBER: "out/{given.jar}"}
                          tests-NUMBER:
                            wanted-if: "branch == 'main'"
                            timeout: "{given.limit}"
                            steps: ["./test.sh {given.jar}"]
                            reports: {tests: "build/*.xml"}
                    """.replace("NUMBER", Integer.toString(at)).indent(2));
            user.append("    - {piece: piece-").append(at)
                    .append(", of: park-pieces, version: \"2.*\", given: {jar: a-")
                    .append(at).append(".jar}}\n");
        }
        PieceSource source = (of, version) -> new PieceSource.Found.Is(
                new PieceSource.Release("park-pieces", "2.1.1", pieces.toString()));
        String file = user.toString();
        String whole = PipelineText.read(file, source).expanded();
        double expanding = time(() -> PipelineText.read(file, source).reading().value().orElseThrow());
        double alone = time(() -> PipelineFileReader.read(whole).value().orElseThrow());
        figures.row("pipeline file: expand and check one that uses 20 pieces",
                number("%.1f ms, %.1f × the check of the same file written out (%.1f ms)", expanding,
                        expanding / alone, alone),
                "< 100 ms", new Figures.Limit(expanding, 100, false, "see above"),
                "medians of 15, warm; 40 stages, 20 of them with a condition; the pieces' own file is read each time");
    }

    private static double time(Runnable work) {
        List<Double> times = new ArrayList<>();
        for (int at = 0; at < 25; at++) {
            long began = System.nanoTime();
            work.run();
            if (at >= 10) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        return percentile(times, 0.5);
    }

    /** The users are rows; the pieces are a component's that is built. */
    private void users() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository pieces = park.bring("park-pieces", Map.of());
            String text = """
                    paseo: 1
                    component: park-pieces
                    versions: "2.0.{serial}"
                    starts: [{push: [main]}]
                    pieces:
                      notes: {stages: {write: {steps: ["echo open > notes.txt"], keep: {notes: notes.txt}}}}
                    """;
            pieces.push("developer", "main", Map.of("paseo.yaml", text));
            park.runEnds("park-pieces", 1);
            pieces.push("developer", "main", Map.of("paseo.yaml", text.replace("echo open", "echo shut")));
            park.runEnds("park-pieces", 2);
            String from = " from seq_1_to_" + USERS;
            park.tamper("insert into component (id, name, file_path, main_branch, created_at) "
                    + "select 10000 + seq, concat('hut-', seq), 'paseo.yaml', 'main', '2026-01-01'" + from);
            park.database.as("insert into component_source (component_id, source_id, all_branches) "
                    + "select 10000 + seq, (select id from component where name = 'park-pieces'), false" + from);
            park.database.as("insert into pipeline_file (id, component_id, commit_id, path, text, problems, pieces, "
                    + "read_at) select 10000 + seq, 10000 + seq, 'c0ffee', 'paseo.yaml', concat('paseo: 1\\ncomponent: "
                    + "hut-', seq, '\\nstages: {like: {piece: notes, of: park-pieces, version: \"2.*\"}}\\n'), '[]', "
                    + "repeat('a', 64), '2026-01-01'" + from);
            park.database.as("insert into head (component_id, branch, commit_id, pipeline_file_id, seen_at) "
                    + "select 10000 + seq, 'main', 'c0ffee', 10000 + seq, '2026-01-01'" + from);
            park.database.as("insert into piece_use (file_id, position, place, piece, component_id, named, wanted, "
                    + "version_id, digest, within) select 10000 + seq, 0, 'stages', 'notes', (select id from component "
                    + "where name = 'park-pieces'), 'park-pieces', if(seq % 3, '2.*', '2.0.1'), (select min(id) from "
                    + "version), repeat('b', 64), null" + from);
            List<Double> took = new ArrayList<>();
            List<Double> query = new ArrayList<>();
            for (int at = 0; at < 40; at++) {
                long began = System.nanoTime();
                int rows = park.as("developer").get("/api/v1/components/park-pieces/pieces/users").good().size();
                if (rows != USERS) {
                    throw new IllegalStateException(rows + " rows");
                }
                long asked = System.nanoTime();
                park.as("developer").get("/api/v1/components/park-pieces").good();
                if (at >= 10) {
                    took.add((asked - began) / 1e6);
                    query.add((System.nanoTime() - asked) / 1e6);
                }
            }
            figures.row("the table of 1,000 users of a piece", number("p50 %.0f ms, p99 %.0f ms, %.0f × a page's "
                    + "smallest question (p50 %.1f ms)", percentile(took, 0.5), percentile(took, 0.99),
                    percentile(took, 0.5) / percentile(query, 0.5), percentile(query, 0.5)),
                    "< 200 ms", new Figures.Limit(percentile(took, 0.99), 200, false, "see above"),
                    "one component asked of the same service; 30 each, in turns");
            trial(park, text);
        }
    }

    private void trial(Park park, String text) {
        long began = System.nanoTime();
        int tried = park.as("developer").post("/api/v1/components/park-pieces/pieces/trials",
                Map.of("text", text)).good().path("users").size();
        figures.row("a new version tried against 1,000 users",
                number("%.1f s, %.1f ms each", (System.nanoTime() - began) / 1e9,
                        (System.nanoTime() - began) / 1e6 / tried),
                "none", "once, after the table was warm");
    }
}
