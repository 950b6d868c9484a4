package dev.paseo.service.database;

import java.time.Instant;
import java.util.concurrent.atomic.AtomicLong;

/** Rows that the rows of a test refer to; each call makes new ones. */
public final class Rows {

    /** When all of them were made. */
    public static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");

    private static final AtomicLong COUNT = new AtomicLong();

    private final RealDatabase database;

    Rows(RealDatabase database) {
        this.database = database;
    }

    /** A name that nothing else has. */
    public static String fresh(String what) {
        return what + "-" + COUNT.incrementAndGet();
    }

    /** A component in one environment. */
    public record Place(long id, long component, long environment) {}

    public long account() {
        return database.insert("insert into account (name, password_hash, created_at) values (?, '', ?)",
                fresh("somebody"), NOON);
    }

    public long component() {
        return database.insert(
                "insert into component (name, file_path, main_branch, created_at) values (?, 'paseo.yaml', 'main', ?)",
                fresh("component"), NOON);
    }

    public long environment() {
        return database.insert(
                "insert into environment (name, position, zone, rules, rules_revision) values (?, 1, 'UTC', '{}', 1)",
                fresh("environment"));
    }

    public Place place() {
        long component = component();
        long environment = environment();
        return new Place(database.insert(
                "insert into place (environment_id, component_id, settings_revision) values (?, ?, 1)", environment,
                component), component, environment);
    }

    public long host(long place) {
        long host = database.insert("insert into host (name) values (?)", fresh("host"));
        database.insert("insert into place_host (place_id, host_id, position) values (?, ?, ?)", place, host,
                COUNT.incrementAndGet());
        return host;
    }

    public long cause() {
        return database.insert("insert into cause (kind, body, at) values ('asked', '{}', ?)", NOON);
    }

    public long line(long component) {
        return database.insert("insert into line (component_id, branch) values (?, ?)", component, fresh("branch"));
    }

    public long version(long component, long line, long order) {
        return database.insert("""
                insert into version (component_id, number, line_id, line_order, trusted, recipe, route, digest,
                  cause_id, sealed_at)
                values (?, ?, ?, ?, true, '{}', '[]', repeat('0', 64), ?, ?)""", component, fresh("1.4"), line,
                order, cause(), NOON);
    }

    /** One that waits. */
    public long deployment(long place, long version) {
        return database.insert("""
                insert into deployment (place_id, version_id, kind, status, state, format, revision,
                  settings_revision, secret_revisions, cause_id, requested_at)
                values (?, ?, 'promotion', 'waiting', '{}', 2, 0, 1, '{}', ?, ?)""", place, version, cause(), NOON);
    }

    public long agent() {
        return database.insert("insert into agent (name, offers) values (?, '[]')", fresh("agent"));
    }

    public long receiver() {
        return database.insert("""
                insert into receiver (name, address, kinds, components, created_at)
                values (?, 'http://127.0.0.1/', '[]', '[]', ?)""", fresh("receiver"), NOON);
    }

    /** A watched store that is due at noon. */
    public long store(long component) {
        return database.insert("""
                insert into watched_store (component_id, kind, address, body, next_at)
                values (?, 'folder', ?, '{}', ?)""", component, fresh("/drop"), NOON);
    }

    public void retire(long component) {
        database.insert("update component set retired_at = ? where id = ?", NOON, component);
    }

    public void drain(long agent) {
        database.insert("update agent set drained = true where id = ?", agent);
    }

    public long wantedLoosening(long by) {
        return database.insert("""
                insert into wanted_loosening (kind, what, body, digest, asked, by_id, at, status)
                values ('rules', '[]', '{}', repeat('0', 64), '{}', ?, ?, 'open')""", by, NOON);
    }

    /** A digest that nothing else has. */
    public String digest() {
        return String.format("%064x", COUNT.incrementAndGet());
    }

    /** The first run of a component, with an empty file. */
    public long run(long component, long line) {
        return run(component, line, 1);
    }

    public long run(long component, long line, long number) {
        long file = database.insert("""
                insert into pipeline_file (component_id, commit_id, path, text, problems, read_at)
                values (?, ?, 'paseo.yaml', '', '[]', ?)""", component, fresh("commit"), NOON);
        return database.insert("""
                insert into run (component_id, number, line_id, commit_id, branch, trusted, pipeline_file_id, cause_id,
                  version_number, commit_summary, commit_author, status, state, format, revision, created_at)
                values (?, ?, ?, 'c0ffee', 'main', true, ?, ?, '1.0', '', '', 'running', '{}', 1, 0, ?)""", component,
                number, line, file, cause(), NOON);
    }

    public long stage(long run, String name, int attempt) {
        return database.insert("""
                insert into stage (run_id, position, name, variant, attempt, status) values (?, 1, ?, '', ?, 'ready')
                """, run, name, attempt);
    }

    public long work() {
        return database.insert("insert into work (kind, status, offered_at) values ('STAGE', 'offered', ?)", NOON);
    }

    /** Opens a component's artifacts and pieces to another. */
    public void open(long component, long source) {
        database.insert("insert into component_source (component_id, source_id, all_branches) values (?, ?, true)",
                component, source);
    }

    /** A text of a pipeline file, as it is at the head of main. */
    public long fileOfMain(long component, String text) {
        long file = database.insert("""
                insert into pipeline_file (component_id, commit_id, path, text, problems, read_at)
                values (?, 'c0ffee', 'paseo.yaml', ?, '[]', ?)""", component, text, NOON);
        database.insert("insert into head (component_id, branch, commit_id, pipeline_file_id, seen_at) "
                + "values (?, 'main', 'c0ffee', ?, ?)", component, file, NOON);
        return file;
    }
}
