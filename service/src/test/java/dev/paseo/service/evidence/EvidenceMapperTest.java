package dev.paseo.service.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class EvidenceMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final EvidenceMapper mapper = database.mapper(EvidenceMapper.class);
    private final Rows rows = database.rows();
    private final long component = rows.component();
    private final long line = rows.line(component);
    private final long run = rows.run(component, line, 1);
    private final long version = rows.version(component, line, 1);

    private void reported(long stage, String body) {
        mapper.add(run, stage, "tests", "stage", body, Rows.NOON);
    }

    private List<String> facts(Long of) {
        return mapper.ofVersionAndRun(version, of).stream().map(EvidenceMapper.FactRow::body).sorted().toList();
    }

    @Test
    void ofAStageThatWasTriedAgainTheNewestReportCounts() {
        reported(rows.stage(run, "test", 1), "{\"failed\": 3}");
        reported(rows.stage(run, "test", 2), "{\"failed\": 0}");
        reported(rows.stage(run, "lint", 1), "{\"failed\": 1}");
        assertEquals(List.of("{\"failed\": 0}", "{\"failed\": 1}"), facts(run));
        assertEquals(3, mapper.ofRun(run).size(), "the run's page has all of them");
    }

    @Test
    void whatWasBuiltElsewhereHasWhatCameWithIt() {
        mapper.addOfVersion(version, "tests", "upload", "{\"failed\": 2}", Rows.NOON);
        assertEquals(List.of("{\"failed\": 2}"), facts(null));
        assertEquals("upload", mapper.ofVersion(version).getFirst().origin());
    }

    @Test
    void ofTestsInAnEnvironmentThoseOfItsNewestDeploymentCount() {
        Rows.Place place = rows.place();
        long first = rows.deployment(place.id(), version);
        long second = rows.deployment(place.id(), version);
        tested(first, place, "{\"failed\": 4}");
        tested(second, place, "{\"failed\": 0}");
        assertEquals(List.of("{\"failed\": 0}"), facts(null));
        assertEquals("{\"failed\": 4}", mapper.ofTest(first, "smoke").getFirst().body());
    }

    private void tested(long deployment, Rows.Place place, String body) {
        mapper.addOfDeployment(
                new Evidence.Tested(deployment, version, place.environment(), "staging", "smoke"), "tests",
                "deployment " + deployment + " in staging, smoke", body, Rows.NOON);
    }

    @Test
    void theSameFileIsAddedToTheSameOnlyOnce() {
        long somebody = rows.account();
        String file = rows.digest();
        assertFalse(mapper.has(version, null, "tests", file));
        mapper.addAdded(version, null, "tests", "{}", Rows.NOON, somebody, file);
        assertTrue(mapper.has(version, null, "tests", file));
        assertFalse(mapper.has(version, rows.environment(), "tests", file), "in an environment it is another");
        assertFalse(mapper.has(version, null, "findings", file));
        assertEquals(List.of(file), mapper.added(version).stream().map(EvidenceMapper.AddedRow::file).toList());
    }

    @Test
    void whatIsComparedWithIsTheNewestRunBeforeOfTheSameLineAndStage() {
        long later = rows.run(component, line, 2);
        reported(rows.stage(run, "test", 1), "{\"failed\": 3}");
        assertEquals(Optional.of(run), mapper.before(later, "tests", "test", ""));
        assertEquals(Optional.empty(), mapper.before(run, "tests", "test", ""), "nothing is before the first");
        assertEquals(Optional.empty(), mapper.before(later, "tests", "lint", ""));
        long elsewhere = rows.run(component, rows.line(component), 3);
        assertEquals(Optional.empty(), mapper.before(elsewhere, "tests", "test", ""), "of another branch");
        assertEquals(List.of("{\"failed\": 3}"),
                mapper.trend(later, 10).stream().map(EvidenceMapper.TrendRow::body).toList());
    }

    @Test
    void aTestThatFailedTwiceInAStageIsOne() {
        long stage = rows.stage(run, "test", 1);
        mapper.addFailure(run, stage, "BoardTest.lights");
        mapper.addFailure(run, stage, "BoardTest.lights");
        mapper.addFailure(run, rows.stage(run, "test", 2), "BoardTest.lights");
        assertEquals(List.of("BoardTest.lights"), mapper.failed(run));
    }
}
