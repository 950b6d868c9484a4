package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Gate;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateDecision;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.PlaceGates;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.context.ConfigurableApplicationContext;

/** How fast gates are judged, what waits is listed, versions are compared, and a decision is seen by others. */
final class GateBench {

    private static final int GATES = 5000;
    private static final int COMMITS = 2000;

    private final Figures figures;

    GateBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        judging();
        try (Park park = new Park()) {
            ConfigurableApplicationContext service = park.startService();
            park.accounts();
            for (String agent : park.agents()) {
                park.startAgent(agent);
            }
            comparing(park);
            deciding(park);
            waiting(park);
            judgingWithLoading(park, service);
        }
    }

    private void judging() {
        Subject subject = new Subject("digest", 1, 2, 3, 4);
        Instant now = Instant.parse("2026-11-23T10:00:00Z");
        List<Criterion> criteria = new ArrayList<>();
        for (int at = 0; at < 5; at++) {
            criteria.add(new Criterion.Approvals(List.of("group-" + at), 2, List.of(Criterion.Exclusion.AUTHORS), true,
                    Optional.of(Duration.ofHours(48)), Optional.empty()));
            criteria.add(new Criterion.Checklist(List.of("group-" + at), List.of("one", "two", "three")));
            criteria.add(new Criterion.LiveFor(Duration.ofHours(at + 1)));
            criteria.add(new Criterion.Fact("fact " + at));
        }
        Map<String, Set<String>> groups = new java.util.HashMap<>();
        for (int at = 0; at < 5; at++) {
            Set<String> members = new java.util.HashSet<>();
            for (int member = 0; member < 40; member++) {
                members.add("person-" + at + "-" + member);
            }
            groups.put("group-" + at, members);
        }
        List<GateDecision> decisions = new ArrayList<>();
        for (int at = 0; at < 5; at++) {
            decisions.add(new GateDecision("person-" + at + "-1", true, "good", subject, now.minusSeconds(at)));
        }
        GateFacts facts = new GateFacts(subject, "developer", Set.of("author"), Set.of(),
                new GateFacts.People(groups, Map.of()),
                new GateFacts.OfVersion(Set.of("staging"), "main", true, List.of(), false,
                        new GateFacts.Stretch("staging", Duration.ZERO, Optional.of(now.minusSeconds(9000))), Map.of()),
                now.minusSeconds(600), new GateFacts.Said(decisions, List.of(), Map.of()), GateFacts.Around.PLAIN);
        List<Double> times = new ArrayList<>();
        for (int at = -2000; at < 2000; at++) {
            long began = System.nanoTime();
            int judged = Gate.judge(criteria, facts, now).judgements().size();
            if (at >= 0 && judged == 20) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        figures.row("a gate with 20 criteria",
                number("p50 %.3f ms, p99 %.3f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 1 ms",
                new Figures.Limit(percentile(times, 0.99), 1, false,
                        "groups are searched for everyone who could decide"),
                "5 of each: approvals of 40 people, checklists, live-for, facts; 2,000 times, warm");
    }

    /** The same, each time with all that it is judged on read from the database, as before every decision. */
    private void judgingWithLoading(Park park, ConfigurableApplicationContext service) throws Exception {
        StringBuilder approvals = new StringBuilder();
        StringBuilder checklists = new StringBuilder();
        StringBuilder facts = new StringBuilder();
        for (int at = 0; at < 6; at++) {
            for (int member = 0; member < 40; member++) {
                park.account("person-" + at + "-" + member, List.of("approver"), List.of("group-" + at));
            }
            approvals.append("        - {from: group-").append(at)
                    .append(", count: 2, not-by: [authors, requester], within: 48h}\n");
            checklists.append("        - {for: group-").append(at).append(", items: [one, two, three]}\n");
            facts.append("        - 'trusted || branch == \"").append(at).append("\"'\n");
        }
        String production = "    follows: staging\n    to-enter:\n      approvals:\n" + approvals + "      checklist:\n"
                + checklists + "      facts:\n" + facts + "      live-for: 2h\n      open: [\"daily 00:00-23:59\"]\n";
        String text = Scenario.environments(park::hostAddress);
        int from = text.indexOf("    follows: staging");
        park.as("admin").put("/api/v1/environments", Map.of("text",
                text.substring(0, from) + production + text.substring(text.indexOf("    components:", from)), "loosen",
                true)).good();
        long id = park.promote("1.4.2", "production");
        Changes changes = service.getBean(Changes.class);
        PlaceGates gates = service.getBean(PlaceGates.class);
        Environments environments = service.getBean(Environments.class);
        Deployments deployments = service.getBean(Deployments.class);
        List<Double> times = new ArrayList<>();
        for (int at = -500; at < 500; at++) {
            long began = System.nanoTime();
            int judged = changes.in(() -> gates.evaluate(gates.atGate(environments.place("daylight-api", "production"),
                    deployments.get(id)))).verdict().judgements().size();
            if (judged < 20) {
                throw new IllegalStateException("only " + judged + " criteria were judged");
            }
            if (at >= 0) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        figures.row("the same with all that it is judged on read from the database",
                number("p50 %.1f ms, p99 %.1f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 5 ms",
                new Figures.Limit(percentile(times, 0.5), 5, false,
                        "fifteen statements to the database, of which those for the members take longest"),
                "20 criteria: 6 of approvals and of checklists, of groups of 40; 6 facts, live-for, hours; in a "
                        + "transaction; 500 times, warm; the limit is held against the median");
    }

    private static double timed(Client client, String path) throws IOException {
        long began = System.nanoTime();
        client.text(path);
        return (System.nanoTime() - began) / 1e6;
    }

    private void comparing(Park park) throws Exception {
        Repository repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        repository.raw("refs/heads/main", repository.commits(COMMITS).getLast());
        repository.git("fetch", "-q", "origin");
        repository.git("reset", "-q", "--hard", "origin/main");
        Map<String, String> files = new java.util.LinkedHashMap<>(Scenario.files());
        files.put("last", "one");
        repository.push("developer", "main", files);
        park.liveIn("staging", "1.4.2");
        String path = "/api/v1/comparison/versions/daylight-api?from=1.4.1&to=1.4.2";
        int count = park.as("developer").get(path).good().path("commitCount").asInt();
        List<Double> times = new ArrayList<>();
        for (int at = 0; at < 20; at++) {
            times.add(timed(park.as("developer"), path));
        }
        figures.row("two versions " + count + " commits apart compared",
                number("p50 %.0f ms, p99 %.0f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 500 ms",
                new Figures.Limit(percentile(times, 0.99), 500, false, "git lists and counts"),
                "the first 200 commits and their count, artifacts, evidence, recipe, files; 20 times, warm");
    }

    private void deciding(Park park) throws Exception {
        HttpResponse<InputStream> events = HttpClient.newHttpClient()
                .send(HttpRequest.newBuilder(URI.create(park.address() + "/api/v1/events"))
                        .header("Authorization", "Bearer " + park.as("approver-2").token()).build(),
                        HttpResponse.BodyHandlers.ofInputStream());
        List<Double> times = new ArrayList<>();
        try (InputStream in = events.body()) {
            for (int at = 0; at < 15; at++) {
                long id = park.promote("1.4.1", "production");
                String subject = park.as("approver-1").get("/api/v1/deployments/" + id).body().path("subject")
                        .asString();
                in.skipNBytes(in.available());
                long began = System.nanoTime();
                park.as("approver-1").post("/api/v1/deployments/" + id + "/decision",
                        Map.of("yes", false, "comment", "Not today.", "subject", subject)).good();
                StringBuilder heard = new StringBuilder();
                while (!heard.toString().contains("\"deployment\"")) {
                    heard.append((char) in.read());
                }
                if (park.status(id).equals("rejected")) {
                    times.add((System.nanoTime() - began) / 1e6);
                }
            }
        }
        figures.row("a decision is seen by another",
                number("p50 %.0f ms, p99 %.0f ms", percentile(times, 0.5), percentile(times, 0.99)), "< 300 ms",
                new Figures.Limit(percentile(times, 0.99), 300, false, "one transaction, an event, a look"),
                "from sending it to the other's fresh answer, by the events that the console hears; without "
                        + "drawing it");
    }

    private void waiting(Park park) throws Exception {
        String waits = " from seq_1_to_" + GATES;
        // Rows that no entry of the trail states; the park does not look for such ones then.
        park.tamper(
                "insert into component (id, name, file_path, main_branch, created_at) select 10000 + seq, "
                        + "concat('hut-', seq), 'paseo.yaml', 'main', '2026-01-01'"
                        + waits);
        park.database.as("insert into line (id, component_id, branch) select 10000 + seq, 10000 + seq, 'main'" + waits);
        park.database.as(
                "insert into version (id, component_id, number, line_id, line_order, trusted, recipe, route, "
                        + "digest, cause_id, sealed_at) select 10000 + seq, 10000 + seq, '1.0', 10000 + seq, 1, true, "
                        + "'{\"format\":1}', '{\"format\":1,\"steps\":[]}', repeat('0', 64), (select min(id) from "
                        + "cause), '2026-01-01'"
                        + waits);
        park.database.as(
                "insert into gate_wait (id, component_id, environment_id, version_id, kind, name, sentence, "
                        + "since_at, due_at) select 10000 + seq, 10000 + seq, "
                        + "(select id from environment where name = 'production'), 10000 + seq, 'decision', '0 of 2 "
                        + "approvals', 'Waits for approvers.', '2026-01-01', '2027-01-01' + interval seq second"
                        + waits);
        park.database.as("insert into gate_wait_person (wait_id, account_id) select 10000 + s.seq, a.id from seq_1_to_"
                + GATES + " s join account a on a.name in ('approver-1', 'approver-2')");
        List<Double> page = new ArrayList<>();
        List<Double> count = new ArrayList<>();
        for (int at = -10; at < 40; at++) {
            double whole = timed(park.as("approver-1"), "/api/v1/waiting");
            double only = timed(park.as("approver-1"), "/api/v1/waiting/count");
            if (at >= 0) {
                page.add(whole);
                count.add(only);
            }
        }
        figures.row("the Waiting page with 5,000 open gates",
                number("p50 %.0f ms, p99 %.0f ms; its count alone p50 %.0f ms", percentile(page, 0.5),
                        percentile(page, 0.99), percentile(count, 0.5)),
                "< 100 ms",
                new Figures.Limit(percentile(page, 0.99), 100, false, "5,000 rows are sorted by urgency"),
                "all of them ask the reader; the 200 most urgent are sent; 40 times, warm");
    }
}
