package dev.paseo.language.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
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
                  daylight-api:
                    url: http://127.0.0.1:7620
                    hosts: {staging-1: {url: "http://127.0.0.1:7621", variables: {RACK: left}}, staging-2: {}}
                    variables: {LOG_LEVEL: info}
                    secrets: [DATA_KEY]
              production:
                follows: staging
                to-enter:
                  approvals: {from: approvers, count: 2, not-by: [authors, requester], comment: required, within: 48h}
            """;

    @Test
    void aGoodFileSaysWhatItSays() {
        EnvironmentsFile file = EnvironmentsFileReader.read(GOOD).value().orElseThrow();
        EnvironmentsFile.Place place = file.environments().getFirst().components().get("daylight-api");
        assertEquals(List.of("staging-1", "staging-2"), List.copyOf(place.hosts().keySet()));
        assertEquals(Map.of("RACK", "left"), place.hosts().get("staging-1").variables());
        Rules rules = file.environments().getLast().rules();
        assertEquals(List.of(new Criterion.Approvals(List.of("approvers"), 2,
                List.of(Criterion.Exclusion.AUTHORS, Criterion.Exclusion.REQUESTER), true,
                Optional.of(Duration.ofHours(48)),
                Optional.empty())), rules.gates().toEnter().approvals());
        assertEquals(List.of("staging"), rules.followed());
    }

    /** Everything that a file can say. */
    private static final String EVERYTHING = """
            environments:
              test: {}
              staging:
                zone: Europe/Madrid
                follows: test
                to-go-on:
                  checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}
                newer-version: takes-over
                components:
                  daylight-api:
                    url: http://127.0.0.1:7620
                    acts: staging-2
                    hosts:
                      staging-1: {url: "http://127.0.0.1:7621", variables: {RACK: left}, side: left}
                      staging-2: {side: right, ssh: {agent: staging-1, address: shed.example, port: 2222, user: \
            paseo, key: SHED_KEY,
                        host-key: "ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIIyXhBsr", folder: ~/paseo}}
                    variables: {LOG_LEVEL: info}
                    secrets: [DATA_KEY]
                    to-enter: {live-for: 90s}
              production:
                follows: {any: [test, staging]}
                branches: [main, "season/*"]
                tags: ["v*"]
                uploads: true
                replaceable: true
                to-enter:
                  approvals:
                    - {from: [approvers, head-warden], count: 2, not-by: [authors, requester], comment: required, \
            within: 48h, escalate: {after: 90m, to: operators}}
                    - {from: release-engineers}
                  live-for: 2h
                  open: {hours: ["mon-thu 09:00-16:00", "sat,sun 22:00-02:00"], except: ["2026-12-24", "2026-12-31 \
            09:00-12:00"]}
                  facts: ["tests.failed == 0", "at.staging.tests.failed == 0 && has(coverage.lines) && coverage.lines \
            >= 0.75"]
                  outside: {change-desk: {url: "http://127.0.0.1:7695/changes", within: 4h}}
                rollback: {approvals: {from: release-engineers, count: 1}}
                closed: |
                  BEGIN:VCALENDAR
                  VERSION:2.0
                  PRODID:-//park//calendar//EN
                  BEGIN:VEVENT
                  UID:year-end
                  DTSTAMP:20261101T000000Z
                  DTSTART;VALUE=DATE:20261224
                  DTEND;VALUE=DATE:20270102
                  SUMMARY:Year's end
                  END:VEVENT
                  END:VCALENDAR
            previews:
              daylight-preview: {component: daylight-api, host: test-1, url: "http://127.0.0.1:{port}", ports: \
            7700-7709, most: 3, after: 48h, promotion: production,
                variables: {LOG_LEVEL: debug}, secrets: [DATA_KEY]}
            """;

    @Test
    void whatIsWrittenIsReadAgain() {
        EnvironmentsFile file = EnvironmentsFileReader.read(EVERYTHING).value()
                .orElseThrow(() -> new AssertionError(EnvironmentsFileReader.read(EVERYTHING).problems()));
        String written = EnvironmentsWriter.write(file);
        assertEquals(Optional.of(file), EnvironmentsFileReader.read(written).value(), written);
        assertEquals(written, EnvironmentsWriter.write(EnvironmentsFileReader.read(written).value().orElseThrow()));
        Rules rules = file.environments().getLast().rules();
        assertEquals(9, rules.toEnter(Kind.PROMOTION, "daylight-api").size(),
                "2 approvals, 1 outside, live-for, hours, 2 facts, follows, origin");
        assertEquals(1, rules.toEnter(Kind.ROLLBACK, "daylight-api").size());
        assertEquals(List.of(new Criterion.LiveFor(Duration.ofSeconds(90))),
                file.environments().get(1).rules().toEnter(Kind.REDEPLOY, "daylight-api"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "mon-thu 09:00-16:00        | monday 9-16               | open.hours[0]: should be days and times such as",
            "\"mon-thu 09:00-16:00\"    | \"mon-thu 09:00-25:00\"    | open.hours[0]: should be days and times such as",
            "\"2026-12-24\"             | \"2026-13-24\"             | open.except[0]: should be a day that is closed",
            "tests.failed == 0          | tests.faild == 0           | facts[0]: is not a valid "
                    + "condition, at column 6: there is no field faild; did you mean failed?",
            "at.staging.tests           | at.stagin.tests            | facts[1]: is not a valid "
                    + "condition, at column 3: there is no field stagin; did you mean staging?",
            "coverage.lines >= 0.75     | coverage.lines             | facts[1]: is not a valid condition",
            "after: 90m                 | after: 90h                 | escalate: should ask others before it expires",
            "Old links still work       | Board shows the day's turning time | checklist: should have at most 200 "
                    + "items, each once",
            "END:VEVENT                 | END:VEVANT                 | closed: is no calendar of RFC 5545",
            "{any: [test, staging]}     | {any: [tset, staging]}     | follows.any[0]: there is no environment "
                    + "tset; did you mean test?",
            "url: \"http://127.0.0.1:7695/changes\" | url: nowhere  | outside.change-desk.url: should be an address"})
    void everyProblemOfAGateIsToldWithItsPlace(String from, String to, String problem) {
        assertTrue(EVERYTHING.contains(from), from);
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(EVERYTHING.replace(from, to));
        assertTrue(reading.problems().stream().anyMatch(found -> found.toString().contains(problem)),
                reading.problems().toString());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "zone: Europe/Madrid         | zone: Europe/Atlantis        | 3:11 environments.staging.zone: is not a "
                    + "time zone, such as Europe/Madrid",
            "url: http://127.0.0.1:7620  | url: ftp://127.0.0.1         | 6:14 "
                    + "environments.staging.components.daylight-api.url: should be an address that begins with "
                    + "http:// or https://",
            "follows: staging            | follows: stagign             | 11:14 environments.production.follows: "
                    + "there is no environment stagign; did you mean staging?",
            "follows: staging            | follows: production          | 11:14 environments.production.follows: "
                    + "should come after production in the file",
            "count: 2                    | count: 0                     | 13:43 "
                    + "environments.production.to-enter.approvals.count: should be a whole number from 1 to 50, "
                    + "found “0”",
            "authors, requester          | author, requester            | 13:55 "
                    + "environments.production.to-enter.approvals.not-by[0]: should be one of",
            "{LOG_LEVEL: info}           | {log-level: info}            | 8:21 "
                    + "environments.staging.components.daylight-api.variables.log-level: its name should be capital "
                    + "letters",
            "to-enter:                   | to-entr:                     | 12:5 environments.production.to-entr: is "
                    + "not a key that is known here; did you mean to-enter?"})
    void everyProblemIsToldWithItsPlace(String from, String to, String problem) {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(GOOD.replace(from, to));
        assertTrue(reading.problems().stream().anyMatch(found -> found.toString().startsWith(problem)),
                reading.problems().toString());
    }

    /** A condition has a name that people are shown; it is written back as it was read. */
    @Test
    void conditionsHaveNames() {
        String text = """
                environments:
                  staging:
                    to-enter:
                      facts:
                        - "tests.total > 0"
                        - {No test has failed: "tests.failed == 0"}
                """;
        EnvironmentsFile file = EnvironmentsFileReader.read(text).value().orElseThrow();
        assertEquals(List.of("tests.total > 0", "No test has failed"),
                file.environments().getFirst().rules().gates().toEnter().criteria().stream()
                        .map(criterion -> ((Criterion.Fact) criterion).shown()).toList());
        String written = EnvironmentsWriter.write(file);
        assertEquals(file, EnvironmentsFileReader.read(written).value().orElseThrow(), written);
        assertEquals("should have at most 120 characters",
                EnvironmentsFileReader.read(text.replace("No test has failed", "x".repeat(121))).problems().getFirst()
                        .message());
    }
}
