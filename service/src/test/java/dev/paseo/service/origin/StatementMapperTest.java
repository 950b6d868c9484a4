package dev.paseo.service.origin;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class StatementMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final StatementMapper mapper = database.mapper(StatementMapper.class);
    private final OriginMapper origins = database.mapper(OriginMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long line = rows.line(place.component());
    private final long version = rows.version(place.component(), line, 1);
    private final String digest = rows.digest();

    private void file(long of, String name) {
        database.change("insert into version_artifact (version_id, name, file_name, digest, size) values (?, ?, "
                + "'app.jar', ?, 7)", of, name, digest);
    }

    @Test
    void whatWasStatedFirstStays() {
        assertEquals(Optional.empty(), mapper.envelope(version, null));
        assertEquals(1, mapper.keep(version, null, "first", Rows.NOON));
        assertEquals(0, mapper.keep(version, null, "second", Rows.NOON));
        assertEquals(Optional.of("first"), mapper.envelope(version, null));
        long deployment = rows.deployment(place.id(), version);
        mapper.keep(null, deployment, "live", Rows.NOON);
        assertEquals(Optional.of("live"), mapper.envelope(null, deployment));
    }

    @Test
    void aRunsStagesStepsInputsAndReportsAreFound() {
        long run = rows.run(place.component(), line);
        long stage = rows.stage(run, "build", 1);
        long agent = rows.agent();
        database.change("update agent set walls = 'namespaces' where id = ?", agent);
        long work = database.insert("insert into work (kind, status, offered_at, run_id, stage_id, agent_id) values "
                + "('STAGE', 'ended', ?, ?, ?, ?)", Rows.NOON, run, stage, agent);
        database.change("insert into step (work_id, position, tried, name, status, exit_code, started_at) values "
                + "(?, 1, 1, 'mvn verify', 'passed', 0, ?)", work, Rows.NOON);
        long other = rows.component();
        long taken = rows.version(other, rows.line(other), 1);
        file(taken, "model");
        database.change("insert into run_take (run_id, stage, position, version_id, artifact, into_folder, because) "
                + "values (?, 'build', 1, ?, 'model', '.', '')", run, taken);
        database.change("insert into evidence (run_id, stage_id, kind, origin, body, at) values (?, ?, 'tests', '', "
                + "'{}', ?)", run, stage, Rows.NOON);
        database.change("insert into evidence (run_id, stage_id, kind, origin, body, at) values (?, ?, 'tests', '', "
                + "'{}', ?)", run, stage, Rows.NOON.plusSeconds(1));
        database.change("update version set run_id = ? where id = ?", run, version);
        assertEquals("namespaces", mapper.stages(run).getFirst().walls());
        assertEquals(List.of(new StatementMapper.StepRow(work, "mvn verify", "passed", 0)), mapper.steps(run));
        assertEquals(List.of(digest), mapper.inputs(run).stream().map(StatementMapper.InputRow::digest).toList());
        assertEquals(List.of(new StatementMapper.ReportRow("build", "tests", "{}")),
                mapper.reports(version, run, Rows.NOON), "not what came after it was sealed");
        assertEquals("paseo.yaml", mapper.built(version).path());
    }

    @Test
    void aDeploymentIsFoundWithWhatWasDecidedAtItsGateOrOneBefore() {
        long deployment = rows.deployment(place.id(), version);
        long approver = rows.account();
        Rows.Place before = new Rows.Place(0, place.component(), rows.environment());
        database.change("update environment set follows = ? where id = ?",
                database.name("environment", before.environment()), place.environment());
        long passage = database.insert("insert into passage (version_id, environment_id, deployment_id, status, format,"
                + " opened_at) values (?, ?, ?, 'open', 1, ?)", version, before.environment(), deployment, Rows.NOON);
        String decision = "insert into ruling (deployment_id, passage_id, account_id, yes, comment, subject, at, "
                + "taken_back_at) values (?, ?, ?, true, 'good', ?, ?, ?)";
        database.change(decision, deployment, null, approver, digest, Rows.NOON, null);
        database.change(decision, null, passage, approver, digest, Rows.NOON, null);
        database.change(decision, deployment, null, approver, digest, Rows.NOON, Rows.NOON);
        assertEquals(2, mapper.decided(List.of(deployment)).size(), "not what was taken back");
        assertEquals(database.name("account", approver), mapper.decided(List.of(deployment)).getFirst().by());
        assertEquals(version, mapper.deployment(deployment).versionId());
        long host = rows.host(place.id());
        database.change("insert into live_interval (host_id, component_id, version_id, deployment_id, from_at) values "
                + "(?, ?, ?, ?, ?)", host, place.component(), version, deployment, Rows.NOON);
        assertEquals(List.of(database.name("host", host)), mapper.hosts(deployment));
    }

    @Test
    void aFileIsFoundByItsDigestWithWhereItIsLive() {
        file(version, "app");
        long newer = rows.version(place.component(), line, 2);
        file(newer, "app");
        database.change("insert into byte_object (digest, size, arrived_at) values (?, 9, ?)", digest, Rows.NOON);
        long bundled = rows.version(place.component(), line, 3);
        database.change("update version set bundle = ? where id = ?", digest, bundled);
        assertEquals(List.of(bundled, newer, version),
                origins.versions(digest).stream().map(OriginMapper.FoundRow::version).toList());
        assertEquals(List.of(new StatementMapper.FileRow("app", digest)), mapper.files(version));
        long run = rows.run(place.component(), line);
        database.change("insert into run_output (run_id, name, file_name, digest, size) values (?, 'app', 'app.jar', "
                + "?, 7)", run, digest);
        assertEquals(List.of("app"), origins.made(digest).stream().map(OriginMapper.MadeRow::name).toList());
        long gone = rows.deployment(place.id(), version);
        long live = rows.deployment(place.id(), version);
        String stretch = "insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, "
                + "to_at) values (?, ?, ?, ?, ?, ?)";
        database.change(stretch, place.id(), place.environment(), gone, version, Rows.NOON, Rows.NOON.plusSeconds(9));
        database.change(stretch, place.id(), place.environment(), live, version, Rows.NOON.plusSeconds(9), null);
        assertEquals(List.of(live, gone), origins.stays(List.of(version, newer)).stream()
                .map(OriginMapper.StayRow::deployment).toList(), "where it is live comes first");
        mapper.keep(newer, null, "how it came about", Rows.NOON);
        assertEquals(List.of(version, bundled, newer),
                origins.versions(digest).stream().map(OriginMapper.FoundRow::version).toList(),
                "what is live comes first, however old it is");
        assertEquals("how it came about", origins.versions(digest).getLast().envelope());
        assertEquals(List.of(), origins.hosts(List.of(gone, live)));
    }
}
