package dev.paseo.language.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.paseo.language.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The reader and the JSON Schema of environments files agree. */
class EnvironmentsSchemaTest {

    private static final Schema SCHEMA = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(text());

    private static String text() {
        try (InputStream in = Objects.requireNonNull(
                EnvironmentsSchemaTest.class.getResourceAsStream("/dev/paseo/language/environments.schema.json"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new IllegalStateException(unreadable);
        }
    }

    private static String file(String body) {
        return "environments: {test: {}, staging: {" + body + "}}";
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"zone: Europe/Madrid, follows: test, uploads: true, replaceable: false",
            "follows: {any: [test]}, branches: [main], tags: [v*], newer-version: takes-over, to-loosen: [operators]",
            "branches: [main], variables: {LOG_LEVEL: info, HOPS: 3}",
            "to-enter: {approvals: {from: approvers}}",
            "to-enter: {approvals: [{from: [a, b], count: 2, not-by: [authors, requester], unknown-authors: ask, "
                    + "comment: required, within: 48h, escalate: {after: 4h, to: operators}}]}",
            "to-go-on: {checklist: {for: testers, items: [Board shows it]}, live-for: 2h}",
            "to-enter: {open: [mon-thu 09:00-16:00]}",
            "to-enter: {open: {hours: [daily 09:00-16:00], except: ['2026-12-24']}}",
            "to-enter: {facts: 'tests.failed == 0'}", "to-enter: {facts: ['tests.failed == 0']}",
            "to-enter: {facts: {No test has failed: 'tests.failed == 0'}}",
            "to-enter: {facts: [{No test has failed: 'tests.failed == 0'}, 'tests.total > 0']}",
            "to-enter: {outside: {desk: {url: 'http://127.0.0.1/x', within: 1h}}}",
            "rollback: {approvals: {from: release-engineers, count: 1}}",
            "components: {a: {url: 'http://a', hosts: {h: {url: 'http://h', variables: {A: b}, side: blue}, "
                    + "g: {side: green}}, variables: {A: b}, secrets: [DATA_KEY], acts: h, to-enter: {live-for: 1h}}}",
            "components: {a: {hosts: {h: {ssh: {agent: a, address: b, port: 22, user: c, key: KEY, host-key: "
                    + "'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIGJ5dGVzYnl0ZXNieXRlc2J5dGVzYnl0ZXNieXRlcw', "
                    + "folder: /srv}}}}}"})
    void whatIsGoodIsGoodToBoth(String body) {
        assertEquals(List.of(), EnvironmentsFileReader.read(file(body)).problems(), body);
        assertEquals(List.of(), SCHEMA.validate(file(body), InputFormat.YAML), body);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"zones: UTC", "branches: main", "tags: v1", "to-loosen: operators",
            "uploads: maybe", "newer-version: later", "follows: {some: [a]}",
            "variables: {log: info}", "to-enter: {approval: {from: a}}", "to-enter: {approvals: {count: 2}}",
            "to-enter: {approvals: {from: a, count: 0}}", "to-enter: {approvals: {from: a, not-by: [me]}}",
            "to-enter: {approvals: {from: a, escalate: {after: 1h}}}", "to-go-on: {checklist: {for: testers}}",
            "to-enter: {live-for: long}", "to-enter: {outside: {desk: {within: 1h}}}",
            "components: {daylight-api: {host: {h: {}}}}", "components: {daylight-api: {hosts: {h: {port: 1}}}}",
            "components: {daylight-api: {secrets: [data]}}",
            "components: {daylight-api: {hosts: {h: {ssh: {agent: a}}}}}"})
    void whatIsWrongIsWrongToBoth(String body) {
        List<Problem> problems = EnvironmentsFileReader.read(file(body)).problems();
        assertTrue(!problems.isEmpty(), body);
        assertTrue(!SCHEMA.validate(file(body), InputFormat.YAML).isEmpty(), body);
    }
}
