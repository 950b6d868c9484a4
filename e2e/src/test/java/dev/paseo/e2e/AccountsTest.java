package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/**
 * Accounts, their passwords and tokens: changed by whoever manages them, never beyond what somebody may, and all in the
 * trail.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class AccountsTest {

    private static final String FRESH = "over-the-ridge-and-down";

    private Park park;

    @BeforeAll
    void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
    }

    @AfterAll
    void close() {
        park.close();
    }

    private JsonNode account(String name) {
        return park.as("admin").get("/api/v1/accounts/" + name).good();
    }

    private String audited(String what, String subject) {
        for (JsonNode entry : park.as("auditor").get("/api/v1/audit?limit=100").good().path("entries")) {
            if (entry.path("entry").path("what").asString("").equals(what)
                    && entry.path("entry").path("subject").asString("").equals(subject)) {
                return entry.path("entry").toString();
            }
        }
        return "";
    }

    /** Two who take the role from each other at the same instant: one of them is too late. */
    @Test
    void somebodyMayAdministrateHoweverManyTakeItFromEachOther() throws Exception {
        try (Park two = new Park()) {
            two.startService();
            two.accounts();
            two.account("keeper", List.of("administrator", "operator", "auditor"), List.of());
            for (int round = 0; round < 8; round++) {
                CyclicBarrier together = new CyclicBarrier(2);
                try (ExecutorService both = Executors.newFixedThreadPool(2)) {
                    List<Callable<Client.Answer>> takes = List.of(() -> take(two, together, "admin", "keeper"),
                            () -> take(two, together, "keeper", "admin"));
                    for (Future<Client.Answer> answer : both.invokeAll(takes)) {
                        assertTrue(List.of(200, 403, 409).contains(answer.get().status()), answer.get()::detail);
                    }
                }
                List<String> left = Stream.of("admin", "keeper").filter(who -> two.as("auditor")
                        .get("/api/v1/accounts/" + who).good().path("roles").toString().contains("administrator"))
                        .toList();
                assertFalse(left.isEmpty(), "nobody may administrate any more");
                for (String who : List.of("admin", "keeper")) {
                    two.as(left.getFirst()).put("/api/v1/accounts/" + who,
                            Map.of("roles", List.of("administrator", "operator", "auditor"))).good();
                }
            }
        }
    }

    private static Client.Answer take(Park park, CyclicBarrier together, String by, String from) throws Exception {
        together.await();
        return park.as(by).put("/api/v1/accounts/" + from, Map.of("roles", List.of("auditor")));
    }

    private Client.Answer signIn(String name, String password) {
        return new Client(park.address(), "").post("/api/v1/tokens",
                Map.of("name", name, "password", password, "description", "test"));
    }

    @Test
    void whatIsChangedCountsAtOnceAndIsInTheTrail() {
        park.account("changed", List.of("developer"), List.of("diggers"));
        assertEquals(403, park.as("changed").get("/api/v1/audit/verification").status());
        assertTrue(park.as("changed")
                .post("/api/v1/accounts",
                        Map.of("name", "x", "addresses", List.of(), "groups", List.of(), "roles", List.of()))
                .detail().startsWith("changed may not add accounts"));
        JsonNode after = park.as("admin").put("/api/v1/accounts/changed", Map.of("roles", List.of("viewer", "auditor"),
                "groups", List.of("testers"), "addresses", List.of("New@Park.Example"))).good();
        assertEquals("[\"viewer\",\"auditor\"]", after.path("roles").toString());
        assertEquals("[\"testers\"]", after.path("groups").toString());
        assertEquals("[\"new@park.example\"]", after.path("addresses").toString());
        assertEquals(200, park.as("changed").get("/api/v1/accounts").status(),
                "who verifies the trail sees who is who");
        String entry = audited("account changed", "changed");
        for (String told : List.of("\"role given\":\"viewer, auditor\"", "\"role taken\":\"developer\"",
                "\"group taken\":\"diggers\"", "\"address given\":\"new@park.example\"")) {
            assertTrue(entry.contains(told), entry);
        }
    }

    @Test
    void theClientChangesWhatItIsToldToAndLeavesTheRest() {
        String added = park.paseo("admin", "account", "add", "ranger", "--role", "viewer", "--group", "walkers",
                "--address", "ranger@park.example").out();
        assertTrue(added.startsWith(
                "Added ranger.\nranger sets a password with this code, once, within a day:\n  paseo password "
                        + park.address() + " --code paseo-code_"),
                added);
        assertEquals("ranger: roles viewer; groups walkers; addresses ranger@park.example, lena@elsewhere.example.\n",
                park.paseo("admin", "account", "change", "ranger", "--add-address", "lena@elsewhere.example").out());
        assertEquals(
                "ranger: roles tester, auditor; groups none; addresses ranger@park.example, lena@elsewhere.example.\n",
                park.paseo("admin", "account", "change", "ranger", "--role", "tester", "--role", "auditor", "--group",
                        "none").out());
        assertTrue(park.paseo("admin", "account", "disable", "ranger", "--reason", "left the park").out()
                .startsWith("ranger is disabled"));
        String list = park.paseo("auditor", "account", "list").out();
        assertTrue(list.lines().anyMatch(line -> line.startsWith("ranger ") && line.contains("disabled by admin")
                && line.endsWith(": left the park")), list);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "roles | king | There is no role king",
            "roles | approver in nowhere | names a component or an environment that is not there",
            "roles | approver everywhere | A role is ROLE, ROLE in ENVIRONMENT",
            "addresses | approver-1@park.example | approver-1@park.example belongs to approver-1; "
                    + "remove it there first",
            "addresses | no address | is not a mail address"})
    void whatCannotBeIsRefusedAndNothingChanges(String field, String value, String reason) {
        JsonNode before = account("approver-2");
        Client.Answer refused = park.as("admin").put("/api/v1/accounts/approver-2", Map.of(field, List.of(value)));
        assertTrue(refused.status() >= 400 && refused.detail().contains(reason), () -> refused.body().toString());
        assertEquals(before, account("approver-2"));
    }

    @Test
    void somebodyIsAlwaysLeftWhoMayAdministrate() {
        assertTrue(park.as("admin").put("/api/v1/accounts/admin", Map.of("roles", List.of("viewer"))).detail()
                .contains("This would leave no administrator"));
        assertTrue(park.as("admin").put("/api/v1/accounts/admin/disabled", Map.of("reason", "x")).detail()
                .contains("You cannot disable your own account"));
        assertEquals("[\"administrator\"]", account("admin").path("roles").toString());
    }

    @Test
    void aGroupGivesItsRoles() {
        park.account("digger", List.of(), List.of("diggers-of-roles"));
        assertEquals(403, park.as("digger").get("/api/v1/components").status());
        park.as("admin").put("/api/v1/groups/diggers-of-roles", Map.of("roles", List.of("viewer"))).good();
        assertEquals(200, park.as("digger").get("/api/v1/components").status());
        assertTrue(park.paseo("admin", "group", "list").out().contains("diggers-of-roles  digger"),
                park.paseo("admin", "group", "list").out());
        assertEquals("[\"viewer by diggers-of-roles\"]", account("digger").path("byGroups").toString());
    }

    /** Their open page hears so within a second, their token is refused, and what they did stays. */
    @Test
    void aLeaverIsOutAtOnce() throws Exception {
        park.account("leaver", List.of("viewer", "approver"), List.of("approvers"));
        String token = park.as("leaver").token();
        HttpResponse<java.io.InputStream> page = Client.HTTP.send(
                HttpRequest.newBuilder(URI.create(park.address() + "/api/v1/events"))
                        .header("Authorization", "Bearer " + token).build(),
                HttpResponse.BodyHandlers.ofInputStream());
        assertEquals(200, page.statusCode());
        Thread.ofVirtual().start(
                () -> park.as("admin").put("/api/v1/accounts/leaver/disabled", Map.of("reason", "left the park")));
        long began = System.nanoTime();
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(page.body(), StandardCharsets.UTF_8))) {
            List<String> heard = new java.util.ArrayList<>();
            assertTrue(lines.lines().peek(heard::add).anyMatch(line -> line.equals("event:signed-out")),
                    heard::toString);
        }
        assertTrue(System.nanoTime() - began < Duration.ofSeconds(2).toNanos(),
                "it took " + (System.nanoTime() - began) / 1_000_000 + " ms");
        assertEquals(401, park.as("leaver").get("/api/v1/components").status());
        assertEquals(401, signIn("leaver", Park.PASSWORD).status());
        assertEquals("left the park", account("leaver").path("disabled").path("reason").asString());
        assertTrue(audited("account disabled", "leaver").contains("\"tokens revoked\":\"1\""),
                audited("account disabled", "leaver"));
        park.as("admin").delete("/api/v1/accounts/leaver/disabled").good();
        assertEquals(401, new Client(park.address(), token).get("/api/v1/components").status(),
                "a revoked token stays revoked");
        assertEquals(200, signIn("leaver", Park.PASSWORD).status());
    }

    @Test
    void aCodeSetsAPasswordOnce() {
        String code = park.as("admin").post("/api/v1/accounts",
                Map.of("name", "newcomer", "addresses", List.of(), "groups", List.of(), "roles", List.of("viewer")))
                .good().path("code").asString();
        assertEquals(401, signIn("newcomer", "").status() == 400 ? 401 : 0,
                "an account without a password lets nobody in");
        assertEquals(401, signIn("newcomer", "guessed-anyway").status());
        Client nobody = new Client(park.address(), "");
        assertEquals(400, nobody.put("/api/v1/password-by-code", Map.of("code", code, "password", "short")).status());
        assertEquals("newcomer", nobody.put("/api/v1/password-by-code", Map.of("code", code, "password", FRESH)).good()
                .path("name").asString());
        Client.Answer again = nobody.put("/api/v1/password-by-code", Map.of("code", code, "password", FRESH));
        assertTrue(again.status() == 401 && again.detail().contains("unknown, used, or older than 24 h"),
                again::detail);
        Client newcomer = new Client(park.address(), signIn("newcomer", FRESH).good().path("token").asString());
        assertEquals(400, newcomer
                .put("/api/v1/password", Map.of("current", "not-the-one-before", "password", "another-good-one"))
                .status());
        newcomer.put("/api/v1/password", Map.of("current", FRESH, "password", "another-good-one")).good();
        assertEquals(401, signIn("newcomer", FRESH).status());
        assertEquals(200, signIn("newcomer", "another-good-one").status());
    }

    @Test
    void aTokenDoesNothingBeyondItsScope() {
        String token = park.as("release-engineer")
                .post("/api/v1/accounts/release-engineer/tokens",
                        Map.of("description", "reads the map", "may", List.of("look"), "days", 7))
                .good().path("token").asString();
        Client limited = new Client(park.address(), token);
        assertEquals(200, limited.get("/api/v1/components").status());
        assertEquals("see components, runs, versions, deployments and the audit trail",
                limited.get("/api/v1/session").good().path("limit").asString());
        for (String path : List.of("/api/v1/notices", "/api/v1/accounts", "/api/v1/accounts/release-engineer",
                "/api/v1/accounts/release-engineer/tokens", "/actuator/prometheus")) {
            assertEquals(403, limited.get(path).status(), path);
        }
        assertEquals(403, limited
                .post("/api/v1/accounts/release-engineer/tokens",
                        Map.of("description", "more", "may", List.of("promote")))
                .status());
        assertEquals(403,
                limited.put("/api/v1/password", Map.of("current", Park.PASSWORD, "password", FRESH)).status());
        assertEquals(403, limited
                .post("/api/v1/deputies", Map.of("deputy", "approver-1", "until", "2027-01-01T00:00:00Z")).status());
        assertTrue(
                limited.post("/api/v1/runs", Map.of("component", "x")).detail()
                        .contains("this token may see components"),
                limited.post("/api/v1/runs", Map.of("component", "x")).detail());
        assertEquals(200, park.as("release-engineer").get("/actuator/prometheus").status());
        assertEquals(403, park.as("developer").get("/actuator/prometheus").status());
        assertEquals(403, park.as("admin")
                .post("/api/v1/accounts/release-engineer/tokens", Map.of("description", "in another's name")).status());
    }

    @Test
    void aTokenIsListedAndRevokedByItsOwnerAndByWhoManagesAccounts() {
        String made = park.paseo("developer", "token", "make", "night build", "--may", "look", "--days", "30").out()
                .strip();
        assertTrue(made.startsWith("paseo-limited_"), made);
        assertEquals(200, new Client(park.address(), made).get("/api/v1/components").status());
        String list = park.paseo("developer", "token", "list").out();
        assertTrue(list.contains("night build") && !list.contains(made), list);
        JsonNode all = park.as("admin").get("/api/v1/accounts/developer/tokens").good();
        JsonNode token = all.get(all.size() - 1);
        assertTrue(token.has("lastUsed") && token.path("may").toString().equals("[\"look\"]"), token::toString);
        assertEquals(403, park.as("approver-1").get("/api/v1/accounts/developer/tokens").status());
        assertEquals("Token " + token.path("id") + " is revoked.\n",
                park.paseo("admin", "token", "revoke", token.path("id").asString(), "--of", "developer").out());
        assertEquals(401, new Client(park.address(), made).get("/api/v1/components").status());
        assertFalse(audited("token revoked", "developer").isEmpty());
    }
}
