package dev.paseo.language.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.language.Reading;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EnvironmentsFileReaderTest {

    private static final String GOOD = """
            environments:
              staging:
                zone: Europe/Madrid
                components:
                  tide-api:
                    url: http://127.0.0.1:7620
                    hosts: {staging-1: {url: "http://127.0.0.1:7621", variables: {RACK: left}}, staging-2: {}}
                    variables: {LOG_LEVEL: info}
                    secrets: [DATA_KEY]
              production:
                follows: staging
                entry:
                  approvals: {from: approvers, count: 2, not-by: [authors, requester], comment: required, within: 48h}
            """;

    @Test
    void aGoodFileSaysWhatItSays() {
        EnvironmentsFile file = EnvironmentsFileReader.read(GOOD).value().orElseThrow();
        EnvironmentsFile.Place place = file.environments().getFirst().components().get("tide-api");
        assertEquals(List.of("staging-1", "staging-2"), List.copyOf(place.hosts().keySet()));
        assertEquals(Map.of("RACK", "left"), place.hosts().get("staging-1").variables());
        assertEquals(Optional.of(new EnvironmentsFile.Approvals("approvers", 2, List.of("authors", "requester"), true, Optional.of(Duration.ofHours(48)))),
                file.environments().getLast().approvals());
        assertEquals(Optional.of("staging"), file.environments().getLast().follows());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "zone: Europe/Madrid         | zone: Europe/Atlantis        | 3:11 environments.staging.zone: is not a time zone, such as Europe/Madrid",
        "url: http://127.0.0.1:7620  | url: ftp://127.0.0.1         | 6:14 environments.staging.components.tide-api.url: should be an address that begins with http:// or https://",
        "follows: staging            | follows: stagign             | 11:14 environments.production.follows: there is no environment stagign; did you mean staging?",
        "follows: staging            | follows: production          | 11:14 environments.production.follows: should come after production in the file",
        "count: 2                    | count: 0                     | 13:43 environments.production.entry.approvals.count: should be a whole number from 1 to 50, found \"0\"",
        "authors, requester          | author, requester            | 13:55 environments.production.entry.approvals.not-by[0]: should be one of",
        "{LOG_LEVEL: info}           | {log-level: info}            | 8:21 environments.staging.components.tide-api.variables.log-level: its name should be capital letters",
        "entry:                      | entri:                       | 12:5 environments.production.entri: is not a key that is known here; did you mean entry?"})
    void everyProblemIsToldWithItsPlace(String from, String to, String problem) {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(GOOD.replace(from, to));
        assertTrue(reading.problems().stream().anyMatch(found -> found.toString().startsWith(problem)), reading.problems().toString());
    }
}
