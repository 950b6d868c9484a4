package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** History, pace and the story of a file, with a hundred thousand deployments. */
final class HistoryBench {

    private static final int TIMES = 200;
    private static final String YEAR = "since=2026-01-01T00:00:00Z&until=2026-12-31T00:00:00Z";

    private final Figures figures;

    HistoryBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            new Crowd(1000, 10, 100_000).into(park);
            fill(park);
            park.signIn("auditor", Park.PASSWORD);
            Client auditor = park.as("auditor");
            history(auditor);
            rows(auditor, "pace of a year, 1,000 components, 100,000 promotions", "/api/v1/pace?" + YEAR, 100, 500,
                    "all lead times are read and sorted");
            rows(auditor, "the 50 promotions of these that took longest", "/api/v1/pace/lead-times?" + YEAR, 100, 500,
                    "all lead times are sorted");
            rows(auditor, "stages of a year: the newest 200,000 of 1,000,000 attempts", "/api/v1/pace/stages?" + YEAR,
                    10,
                    2000, "all of these are read and sorted");
            rows(auditor, "what moved in one stage's 100 attempts", "/api/v1/pace/shifts?component=hut-7&stage=stage-3",
                    TIMES, 100, "each split is tried");
            rows(auditor, "a file asked by its digest", "/api/v1/origins/" + "a".repeat(64), TIMES, 20,
                    "one statement is verified each time");
        }
    }

    /** What the crowd does not have: holds, what failed, hosts in trouble, files, and lead times. */
    private static void fill(Park park) throws Exception {
        park.tamper("insert into hold (place_id, environment_id, reason, set_by, at, lifted_at, lifted_by) select "
                + "1 + seq % 10000, (select environment_id from place where id = 1 + seq % 10000), 'snow', 1, "
                + "'2026-01-01' + interval seq minute, '2026-01-01' + interval seq + 5 minute, 1 from "
                + "seq_1_to_20000");
        park.database.as("update deployment set live_at = null, status = 'failed', started_at = requested_at, "
                + "requested_by = 1 + id % 5, ended_at = requested_at + interval 1 second where id % 20 = 0 and "
                + "status = 'replaced'");
        park.database.as("insert into audit_entry (body) select concat('{\"at\":\"', date_format('2026-01-01' + "
                + "interval seq second, '%Y-%m-%dT%H:%i:%s'), 'Z\",\"because\":\"it answered 500\",\"details\":{},"
                + "\"format\":1,\"subject\":\"hut-', 1 + seq % 1000, '\",\"what\":\"unhealthy\",\"where\":\"env-', "
                + "1 + seq % 10, '\",\"who\":\"shed-', seq, '\"}') from seq_1_to_10000");
        park.database.as("insert into ruling (deployment_id, account_id, yes, comment, subject, at) select id, "
                + "1 + id % 5, true, 'seen', repeat('b', 64), requested_at from deployment");
        park.database.as("insert into lead_time (deployment_id, component_id, environment_id, live_at, turn, agents, "
                + "building, before_it, people, waiting_time, deploying, bad_for) select d.id, p.component_id, "
                + "p.environment_id, d.requested_at, d.id % 60, d.id % 7, 100 + d.id % 300, d.id % 86400, "
                + "d.id % 40000, "
                + "d.id % 3000, 10 + d.id % 90, if(d.id % 50 = 0, d.id % 7200, null) from deployment d join place p "
                + "on p.id = d.place_id");
        park.database
                .as("insert into lead_time_people (deployment_id, component_id, environment_id, live_at, asked, "
                        + "seconds) select deployment_id, component_id, environment_id, live_at, 'approvers', "
                        + "people from lead_time where deployment_id % 2 = 0");
        park.database
                .as("insert into pipeline_file (id, component_id, commit_id, path, text, problems, read_at) select "
                        + "seq, seq, 'c0ffee', 'paseo.yaml', '', '[]', '2026-01-01' from seq_1_to_1000");
        park.database.as("insert into run (id, component_id, number, line_id, commit_id, branch, trusted, "
                + "pipeline_file_id, cause_id, version_number, commit_summary, commit_author, status, state, format, "
                + "revision, created_at) select seq, 1 + seq % 1000, seq, 1 + seq % 1000, 'c0ffee', 'main', true, "
                + "1 + seq % 1000, 1, seq, '', '', 'passed', '{}', 2, 0, '2026-01-01' + interval seq * 5 minute from "
                + "seq_1_to_100000");
        park.database.as("insert into stage (run_id, position, name, variant, attempt, status, started_at, ended_at) "
                + "select r.id, s.seq, concat('stage-', s.seq), '', 1, if(r.id % 17 = s.seq, 'failed', 'passed'), "
                + "r.created_at, r.created_at + interval 10 + (r.id * s.seq) % 50 second from run r join "
                + "seq_1_to_10 s");
        park.database.as("insert into version_artifact (version_id, name, file_name, digest, size) select id, 'app', "
                + "'app.jar', if(id = 4711, repeat('a', 64), sha2(id, 256)), 1000 from version");
        park.database.as(
                "analyze table deployment, hold, audit_entry, lead_time, lead_time_people, version_artifact, stage, "
                        + "run, ruling");
    }

    private void history(Client auditor) throws IOException {
        String deep = "";
        JsonNode page = auditor.get("/api/v1/history?limit=200").good();
        for (int i = 0; i < 20; i++) {
            deep = page.path("next").asString();
            page = auditor.get("/api/v1/history?limit=200&after=" + deep).good();
        }
        Map<String, String> asked = new LinkedHashMap<>();
        asked.put("all of it", "");
        asked.put("4,000 further back", "&after=" + deep);
        asked.put("of an environment", "&environment=env-3");
        asked.put("of a component", "&component=hut-41");
        asked.put("of a host", "&host=shed-77");
        asked.put("of a person", "&by=auditor");
        asked.put("of a day", "&since=2026-01-01T06:00:00Z&until=2026-01-01T18:00:00Z");
        asked.put("of a component in an environment on a day",
                "&component=hut-41&environment=env-3&since=2026-01-01T00:00:00Z&until=2026-01-02T00:00:00Z");
        for (Map.Entry<String, String> each : asked.entrySet()) {
            rows(auditor, "history, 100,000 deployments, " + each.getKey(),
                    "/api/v1/history?limit=50" + each.getValue(), TIMES, 100, "eight sources are asked one by one");
        }
        rows(auditor, "lanes of an environment over a year, 50 of 1,000 places",
                "/api/v1/history/lanes?environment=env-3&" + YEAR, TIMES, 100, "times, holds and troubles are read");
        rows(auditor, "what changed between two moments, 10,000 places",
                "/api/v1/history/changes?since=2026-01-01T12:00:00Z&until=2026-01-02T00:00:00Z", 20, 1000,
                "both moments are read whole");
    }

    private void rows(Client auditor, String what, String path, int times, double limit, String why)
            throws IOException {
        List<Double> took = new ArrayList<>();
        for (int time = 0; time < 2 * times; time++) {
            long began = System.nanoTime();
            auditor.get(path).good();
            if (time >= times) {
                took.add((System.nanoTime() - began) / 1e6);
            }
        }
        figures.row(what, number("p50 %.0f ms, p99 %.0f ms", percentile(took, 0.5), percentile(took, 0.99)),
                number("p99 < %.0f ms", limit), new Figures.Limit(percentile(took, 0.99), limit, false, why),
                times + " times, after as many to warm up, over loopback");
    }
}
