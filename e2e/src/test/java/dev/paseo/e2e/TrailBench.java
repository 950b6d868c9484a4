package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.core.audit.ExportCheck;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;

/** The audit trail with a million entries: found, opened, taken away, verified. */
final class TrailBench {

    private static final int ENTRIES = 1_000_000;
    private static final int TIMES = 100;
    private static final int COMPONENTS = 1_000;

    private final Figures figures;

    TrailBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            fill(park);
            reading(park);
            Client auditor = park.as("auditor");
            JsonNode head = auditor.get("/api/v1/audit/head").good();
            long size = head.path("size").asLong();
            List<Double> opened = new ArrayList<>();
            for (int time = 0; time < TIMES; time++) {
                long position = size / TIMES * time;
                opened.add(millis(() -> auditor.get("/api/v1/audit/entries/" + position).good()));
            }
            figures.row("an entry of " + size + " opened with its proof",
                    number("the first %.0f ms, then p50 %.0f ms, p99 %.0f ms", opened.getFirst(),
                            percentile(opened, 0.5), percentile(opened, 0.99)),
                    "–", TIMES + " entries, from the first to the last; the first one reads all leaf hashes");
            takenAway(park, size);
        }
    }

    /** Entries as the service writes them, each with its leaf; the last ones are the service's own, which it signs. */
    private static void fill(Park park) throws Exception {
        Await.until("the first entries are numbered",
                () -> park.as("auditor").get("/api/v1/audit/verification").good().path("notCovered").asLong() == 0);
        park.tamper("insert into audit_entry (body) select concat('{\"at\":\"', "
                + "date_format('2026-01-01' + interval seq second, '%Y-%m-%dT%H:%i:%s'), 'Z\",\"because\":\"a "
                + "request of "
                + "the evening\",\"details\":{\"deployment\":\"', seq div 10, '\"},\"format\":1,\"subject\":\"hut-', "
                + "1 + seq % " + COMPONENTS + ", ' 1.', seq div 50000, '\",\"what\":\"', "
                + "elt(1 + seq % 7, 'held', 'approved', 'promotion requested', 'deployment live', 'live now', 'passage "
                + "ended', 'version sealed'), '\",\"where\":\"', elt(1 + seq % 3, 'test', 'staging', 'production'), "
                + "'\",\"who\":\"person-', seq % 200, '\"}') from seq_1_to_" + ENTRIES);
        park.database.as("insert into audit_leaf (position, entry_id, leaf_hash) select n.most + row_number() over "
                + "(order by e.id) - 1, e.id, sha2(concat(x'00', e.body), 256) from audit_entry e join "
                + "(select count(*) "
                + "as most from audit_leaf) n left join audit_leaf l on l.entry_id = e.id where l.entry_id is null");
        park.database.as("analyze table audit_entry, audit_leaf");
        park.signIn("auditor", Park.PASSWORD);
        Await.until("a head covers them", () -> park.as("auditor").get("/api/v1/audit/head").good().path("size")
                .asLong() > ENTRIES);
    }

    private void reading(Park park) throws Exception {
        Map<String, String> asked = Map.of("by person", "by=person-17", "by action", "what=held", "by component",
                "component=hut-41", "by version", "component=hut-41&version=1.3", "by environment",
                "environment=production", "by deployment", "deployment=4711", "by time",
                "since=2026-01-03T00:00:00Z&until=2026-01-04T00:00:00Z", "by all of these",
                "by=person-17&what=approved&component=hut-218&environment=staging&since=2026-01-02T00:00:00Z",
                "by a text that is often there", "text=evening", "by a text that is not there", "text=avalanche");
        Client auditor = park.as("auditor");
        for (String how : asked.keySet().stream().sorted().toList()) {
            List<Double> took = new ArrayList<>();
            for (int time = 0; time < TIMES + 5; time++) {
                double one = millis(() -> auditor.get("/api/v1/audit?limit=50&" + asked.get(how)).good());
                if (time >= 5) {
                    took.add(one);
                }
            }
            figures.row("the audit trail, 1,000,000 entries, " + how,
                    number("p50 %.0f ms, p99 %.0f ms", percentile(took, 0.5), percentile(took, 0.99)), "p99 < 100 ms",
                    new Figures.Limit(percentile(took, 0.99), 100, false,
                            "4,000 entries are looked through for a text at once"),
                    took.size() + " times, warm, 50 entries");
        }
        double all = millis(() -> {
            JsonNode answer = auditor.get("/api/v1/audit?limit=50&text=avalanche").good();
            while (answer.has("lookedBack")) {
                answer = auditor.get("/api/v1/audit?limit=50&text=avalanche&before="
                        + answer.path("next").asString("")).good();
            }
        });
        figures.row("a text that is not there looked for in all of them", number("%.1f s", all / 1000), "–",
                "question after question, each of 4,000 entries");
    }

    private void takenAway(Park park, long size) throws Exception {
        Path file = park.folder.resolve("trail.jsonl");
        long began = System.nanoTime();
        Client.HTTP.send(HttpRequest.newBuilder(URI.create(park.address() + "/api/v1/audit/export"))
                .header("Authorization", "Bearer " + park.as("auditor").token()).build(), BodyHandlers.ofFile(file));
        double seconds = (System.nanoTime() - began) / 1e9;
        figures.row("the audit trail taken away", number("%.0f entries/s, %.0f MB in %.1f s", size / seconds,
                Files.size(file) / 1e6, seconds), "≥ 50,000 entries/s",
                new Figures.Limit(size / seconds, 50_000, true, "pages of 2,000 are asked one after the other"),
                size + " entries over loopback into a file");
        began = System.nanoTime();
        ExportCheck.Checked checked;
        try (BufferedReader lines = Files.newBufferedReader(file)) {
            checked = ExportCheck.check(lines.lines().iterator(), Optional.empty(), List.of());
        }
        double verified = (System.nanoTime() - began) / 1e9;
        if (!checked.passed()) {
            throw new IllegalStateException(checked.findings().toString());
        }
        double hashed = hashed(file);
        figures.row("the same verified without a service",
                number("%.1f s, SHA-256 over the same bytes %.1f s: %.1f times that", verified, hashed,
                        verified / hashed),
                "10⁶ entries < 10 s", new Figures.Limit(verified, 10, false, "each entry is three hashes and a line"),
                checked.entries() + " entries, one reading");
    }

    private static double hashed(Path file) throws Exception {
        long began = System.nanoTime();
        MessageDigest digest = MessageDigest.getInstance("SHA-256");
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = Files.newInputStream(file)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                digest.update(buffer, 0, read);
            }
        }
        digest.digest();
        return (System.nanoTime() - began) / 1e9;
    }

    private interface Act {
        void run() throws IOException;
    }

    private static double millis(Act act) throws IOException {
        long began = System.nanoTime();
        act.run();
        return (System.nanoTime() - began) / 1e6;
    }
}
