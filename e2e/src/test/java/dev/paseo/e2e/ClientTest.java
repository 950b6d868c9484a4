package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** A day at the command line: what people ask and do there, and what it says. */
class ClientTest {

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = Park.open();
        Repository repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        park.rule("approver-1", park.promote("1.4.1", "production"), true, "Times agree.").good();
        park.liveIn("production", "1.4.1");
        repository.push("developer", "main", Map.of("times", "newer"));
        park.liveIn("staging", "1.4.2");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    /** What was said, where it was done. */
    private static String done(String who, String... arguments) {
        Park.Said said = park.paseo(who, arguments);
        assertEquals(0, said.code(), () -> String.join(" ", arguments) + ": " + said.out());
        return said.out();
    }

    private static void says(String out, String... words) {
        for (String word : words) {
            assertTrue(out.contains(word), () -> word + " is not in: " + out);
        }
    }

    private static String refused(int code, String who, String... arguments) {
        Park.Said said = park.paseo(who, arguments);
        assertEquals(code, said.code(), () -> String.join(" ", arguments) + ": " + said.out());
        return said.out();
    }

    @Test
    void whatThereIsIsListed() {
        says(done("developer", "list", "components"), "daylight-api", "Daylight at the huts, over HTTP");
        says(done("developer", "list", "environments"), "production", "staging");
        says(done("developer", "list", "runs", "daylight-api", "--branch", "main", "--limit", "2"), "daylight-api#2",
                "passed", "Change times");
        assertTrue(!done("developer", "list", "runs", "daylight-api", "--limit", "1").contains("daylight-api#1"));
        says(refused(1, "developer", "list", "runs", "daylight-api", "--status", "green"),
                "should be one of waiting, running");
        says(done("developer", "list", "runs", "--status", "passed", "--author", "developer"), "daylight-api#1");
        says(done("developer", "list", "versions", "daylight-api", "--in", "test"), "daylight-api  1.4.2", "test");
        assertTrue(!done("developer", "list", "versions", "--blocked").contains("1.4."));
        says(done("developer", "list", "deployments", "--by", "nobody"), "");
        says(done("developer", "list", "deployments", "--component", "daylight-api", "--in", "test"), "1.4.1", "1.4.2",
                "the walk");
        says(refused(1, "developer", "list", "deployments", "--in", "tset"),
                "There is no environment tset; did you mean test?");
        assertEquals(1,
                Client.JSON.readTree(
                        done("developer", "list", "deployments", "--in", "test", "--limit", "1", "--output", "json"))
                        .size());
    }

    @Test
    void logsAreReadWhole() {
        says(done("developer", "log", "daylight-api#1"), "compile", "unit-tests", "passed");
        says(done("developer", "log", "daylight-api#1", "unit-tests"), "tested");
        says(refused(1, "developer", "log", "daylight-api#1", "unit-test"), "has no stage unit-test");
        String id = Client.JSON
                .readTree(done("developer", "list", "deployments", "--in", "test", "--limit", "1", "--output", "json"))
                .path(0).path("id").asString("");
        says(done("developer", "log", "deployment", id), "test-1", "install");
        says(done("developer", "log", "deployment", id, "test-1"), "── install on test-1", "key ••••••");
        says(refused(1, "developer", "log", "deployment", id, "north-hut"),
                "has done nothing on north-hut; it worked on test-1");
        says(refused(2, "developer", "log", "daylight-api", "1.4.1"), "should be one of COMPONENT#RUN");
    }

    @Test
    void addressesAreSaidAndALookIsAskedFor() {
        says(done("developer", "component", "badge", "daylight-api"), "/badges/", "daylight-api.svg?branch=main");
        says(done("developer", "environment", "calendar", "production"), "/environments/production/calendar.ics");
        says(done("developer", "component", "look", "daylight-api"), "Nothing has moved since Paseo looked last");
        says(refused(4, "auditor", "component", "look", "daylight-api"),
                "may not have the source of daylight-api looked at: it takes the role developer or "
                        + "release-engineer there");
    }

    @Test
    void whatARunHasMadeIsFetched() throws Exception {
        java.nio.file.Path into = park.folder.resolve("fetched-app");
        says(done("developer", "fetch", "daylight-api", "#1", "app", "--into", into.toString()), into.toString());
        assertEquals("version 1.4.1 ok\n", java.nio.file.Files.readString(into));
        says(refused(1, "developer", "fetch", "daylight-api", "#1", "apps"),
                "daylight-api#1 has no artifact apps; it has app");
        says(refused(1, "developer", "fetch", "daylight-api", "#999", "app"), "There is no run daylight-api#999");
    }

    @Test
    void aPromotionOfWhatIsLiveOrOlderSaysSoFirst() {
        String live = park.live("test").orElseThrow();
        says(done("release-engineer", "promote", "daylight-api", "1.4.1", "--to", "test", "--plan"),
                "note: 1.4.1 is older than " + live + ", which is live there: this is a step back in the line.");
        done("release-engineer", "hold", "daylight-api", "--in", "test", "--reason", "fog");
        says(done("release-engineer", "promote", "daylight-api", live, "--to", "test", "--plan"),
                "note: daylight-api in test is held by release-engineer: “fog”.",
                "note: " + live + " is live there already: this deploys the same version again.");
        done("release-engineer", "hold", "daylight-api", "--in", "test", "--lift", "--reason", "clear");
    }

    @Test
    void whoeverSignsOutIsSignedOut() throws Exception {
        park.account("auditor-2", List.of("auditor"), List.of());
        done("auditor-2", "list", "components");
        says(done("auditor-2", "sign-out"), "Signed out of");
        refused(4, "auditor-2", "list", "components");
    }

    @Test
    void aPromotionIsAskedForShownDecidedAndUndoneByARollback() throws Exception {
        says(done("release-engineer", "promote", "daylight-api", "1.4.2", "--to", "production", "--plan"),
                "deploy to and check north-hut");
        String asked = done("release-engineer", "promote", "daylight-api", "1.4.2", "--to", "production");
        Matcher number = Pattern.compile("deployment ([0-9]+)", Pattern.CASE_INSENSITIVE).matcher(asked);
        assertTrue(number.find(), asked);
        String id = number.group(1);
        says(done("approver-1", "show", "deployment", id), "daylight-api 1.4.2", "production", "0 of 1 approval",
                "Change times", "valley-house");
        says(done("approver-1", "waiting"), "deployment " + id, "daylight-api 1.4.2");
        says(refused(4, "release-engineer", "approve", "deployment", id, "--comment", "mine"),
                "the requester may not decide");
        says(refused(1, "approver-1", "approve", "deployment", id), "production wants a comment with every decision");
        says(done("approver-1", "approve", "deployment", id, "--comment", "Looked at both."), id);
        park.liveIn("production", "1.4.2");
        says(done("developer", "history", "daylight-api", "--in", "production"), "1.4.2 live");
        says(done("developer", "why", "deployment", id), "approver-1", "Looked at both.", "release-engineer");
        says(done("release-engineer", "rollback", "daylight-api", "--in", "production", "--reason",
                "times run backwards"), "1.4.1");
        park.liveIn("production", "1.4.1");
        says(done("developer", "where", "daylight-api"), "held: rolled back from 1.4.2: times run backwards",
                "1 version behind");
        says(done("release-engineer", "hold", "daylight-api", "--in", "production", "--lift", "--reason", "mended"),
                "no longer held");
        says(done("developer", "compare", "staging", "production"), "1.4.2", "1.4.1");
        says(done("developer", "compare", "daylight-api", "1.4.1", "1.4.2"), "Change times");
    }

    @Test
    void whatRestrainsIsSaidAndLifted() {
        says(done("admin", "close", "test", "--reason", "hill race"), "test is closed");
        says(done("developer", "where", "daylight-api"), "test is closed");
        says(done("admin", "close", "test", "--lift"), "The closure of test is lifted.");
        says(done("release-engineer", "block", "daylight-api", "1.4.2", "--reason", "wrong time zone"), "1.4.2");
        says(refused(1, "release-engineer", "promote", "daylight-api", "1.4.2", "--to", "production"), "blocked");
        refused(4, "release-engineer", "block", "daylight-api", "1.4.2", "--lift", "--reason", "it was the clock");
        done("admin", "block", "daylight-api", "1.4.2", "--lift", "--reason", "it was the clock");
        says(refused(2, "release-engineer", "hold", "daylight-api", "--in", "staging"), "Say why: --reason");
    }

    @Test
    void hostsVariablesAndSecretsAreListedAndSet() {
        says(done("developer", "host", "list"), "valley-house", "north-hut");
        done("admin", "host", "maintain", "valley-house", "--reason", "new disk");
        says(done("developer", "host", "list"), "new disk");
        done("admin", "host", "maintain", "valley-house", "--lift");
        done("admin", "variable", "set", "daylight-api", "GAUGE", "north", "--in", "test");
        says(done("developer", "variable", "list", "daylight-api", "--in", "test"), "GAUGE", "north");
        String secrets = done("admin", "secret", "list");
        says(secrets, "DATA_KEY", "daylight-api");
        assertTrue(!secrets.contains(Park.SECRET), "never a value");
        says(done("admin", "agent", "list"), "builder", "valley-house");
        says(done("admin", "environment", "rules", "production"), "To be promoted into production", "approvers");
        says(done("auditor", "audit", "list", "--limit", "200"), " registered daylight-api");
    }

    /** What programs read is JSON, whatever was asked. */
    @ParameterizedTest
    @ValueSource(strings = {"where", "show daylight-api 1.4.1", "show daylight-api#1", "why daylight-api#1",
            "history daylight-api --in staging", "waiting", "host list", "agent list", "preview list",
            "set show", "deputy list", "compare daylight-api 1.4.1 1.4.2", "variable list daylight-api --in staging",
            "environment rules staging", "component events daylight-api"})
    void outputForPrograms(String line) {
        String[] words = (line + " --output json").split(" ");
        JsonNode read = Client.JSON.readTree(done("admin", words));
        assertTrue(read.isObject() || read.isArray(), line);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "2 | promote daylight-api",
            "2 | show deployment",
            "2 | clock forward soon",
            "1 | show deployment 999999",
            "1 | history daylight-apy --in staging",
            "1 | set show evening",
            "4 | rollback daylight-api --in test --reason x",
            "4 | deputy name approver-1 --for approver-2 --until 2099-01-01T00:00:00Z",
            "4 | audit verify"})
    void whatCannotBeDoneSaysWhy(int code, String line) {
        String said = refused(code, "developer", line.split(" "));
        assertTrue(!said.isBlank() && !said.contains("Exception"), said);
        if (List.of(1, 4).contains(code)) {
            says(said, "error: ");
        }
    }
}
