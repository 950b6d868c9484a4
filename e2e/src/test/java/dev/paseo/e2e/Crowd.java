package dev.paseo.e2e;

import java.io.IOException;

/**
 * Many components, each in every environment with a history of deployments, written into the real tables.
 *
 * @param deployments of all places together; as many to each of them
 */
record Crowd(int components, int environments, int deployments) {

    void into(Park park) throws IOException, InterruptedException {
        int places = components * environments;
        park.tamper(
                "insert into component (id, name, file_path, main_branch, created_at) select seq, concat('hut-', "
                        + "seq), 'paseo.yaml', 'main', '2026-01-01' from seq_1_to_"
                        + components);
        park.database.as(
                "insert into environment (id, name, position, zone, rules, rules_revision) select seq, "
                        + "concat('env-', seq), seq, 'UTC', '{\"format\":1,\"branches\":[]}', 1 from seq_1_to_"
                        + environments);
        park.database
                .as("insert into line (id, component_id, branch) select seq, seq, 'main' from seq_1_to_" + components);
        park.database
                .as("insert into cause (id, kind, body, at) values (1, 'asked', '{\"by\":\"admin\"}', '2026-01-01')");
        park.database.as(
                "insert into version (id, component_id, number, line_id, line_order, trusted, recipe, route, "
                        + "digest, cause_id, sealed_at) "
                        + "select seq, 1 + (seq - 1) % " + components + ", concat('1.', 1 + (seq - 1) div " + components
                        + "), 1 + (seq - 1) % " + components + ", 1 + (seq - 1) div " + components
                        + ", true, '{\"format\":1}', '{\"format\":1,\"steps\":[]}', repeat('0', 64), 1, "
                        + "'2026-01-01' from seq_1_to_"
                        + 100 * components);
        park.database.as("insert into host (id, name) select 1000 + seq, concat('shed-', seq) from seq_1_to_" + places);
        park.database.as(
                "insert into place (id, environment_id, component_id, settings_revision) select seq, 1 + (seq - 1) div "
                        + components + ", 1 + (seq - 1) % " + components
                        + ", 1 from seq_1_to_" + places);
        park.database.as(
                "insert into place_settings (place_id, revision, body, set_by, at) select seq, 1, "
                        + "'{\"format\":1,\"variables\":{},\"hosts\":{},\"secrets\":[]}', 1, '2026-01-01' from "
                        + "seq_1_to_"
                        + places);
        park.database.as("insert into place_host (place_id, host_id, position) select seq, 1000 + seq, 0 from seq_1_to_"
                + places);
        String rest = " from seq_1_to_" + deployments;
        String place = "1 + (seq - 1) % " + places;
        String turn = "(seq - 1) div " + places;
        String version = "1 + (seq - 1) % " + components + " + " + components + " * (" + turn + ")";
        String from = "'2026-01-01' + interval (seq - 1) second";
        String to = "if(" + turn + " = " + (deployments / places - 1) + ", null, '2026-01-01' + interval (seq - 1 + "
                + places + ") second)";
        park.database.as(
                "insert into deployment (id, place_id, version_id, kind, status, state, format, revision, "
                        + "settings_revision, secret_revisions, cause_id, requested_at, started_at, live_at, ended_at) "
                        + "select seq, " + place + ", " + version + ", 'promotion', if(" + to
                        + " is null, 'live', 'replaced'), '{}', 2, 1, 1, '{}', 1, " + from + ", " + from + ", " + from
                        + ", " + to + rest);
        park.database.as("insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, "
                + "to_at) select " + place + ", 1 + (" + place + " - 1) div " + components + ", seq, " + version + ", "
                + from + ", " + to + rest);
        park.database.as(
                "insert into live_interval (host_id, component_id, version_id, deployment_id, from_at, to_at) "
                        + "select 1000 + "
                        + place + ", 1 + (seq - 1) % " + components + ", " + version
                        + ", seq, " + from + ", " + to + rest);
        park.database.as("update place set live_deployment_id = id + " + (deployments - places));
        park.database.as("analyze table deployment, live_stretch, live_interval, place, version");
    }
}
