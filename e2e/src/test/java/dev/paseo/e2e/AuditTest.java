package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The audit trail, after the database's administrator has been at it. */
class AuditTest {

    private Park park;

    @BeforeEach
    void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        Await.until("all entries are numbered", () -> verify().path("notCovered").asLong() == 0);
        assertEquals(List.of(), findings());
    }

    @AfterEach
    void close() {
        park.close();
    }

    private JsonNode verify() {
        return park.as("auditor").get("/api/v1/audit/verification").good();
    }

    private List<String> findings() {
        List<String> findings = new ArrayList<>();
        verify().path("findings").forEach(finding -> findings.add(finding.asString()));
        return findings;
    }

    @Test
    void aChangedByteIsNamed() throws Exception {
        park.tamper(
                "update audit_entry set body = replace(body, 'developer', 'developes') where body like "
                        + "'%developer%account added%' limit 1");
        assertTrue(findings().getFirst().matches("entry [0-9]+ was changed: it does not agree with its leaf"),
                findings().toString());
    }

    @Test
    void aRemovedRowIsNamed() throws Exception {
        park.tamper("set foreign_key_checks = 0; delete from audit_entry where id = 3");
        assertEquals("entry 2 is removed", findings().getFirst());
    }

    @Test
    void theLastOnesCutOffBehindTheSignedHeadAreNamed() throws Exception {
        park.tamper("set foreign_key_checks = 0; set @last = (select max(position) from audit_leaf); "
                + "delete from audit_entry where id = (select entry_id from audit_leaf where position = @last); "
                + "delete from audit_leaf where position = @last; delete from tree_head where size > @last");
        assertTrue(findings().getFirst().contains("the last 1 are cut off"),
                "the file of heads outside the database knows: " + findings());
    }

    /**
     * What the database's administrator could do unseen if the trail were only held against itself, and what is found
     * of it.
     */
    private static final Map<String, String> PAST_THE_TRAIL = new LinkedHashMap<>();

    static {
        PAST_THE_TRAIL.put(
                "insert into role_grant (account_id, role) select id, 'ADMINISTRATOR' from account where name = "
                        + "'developer'",
                "account developer was changed past the trail");
        PAST_THE_TRAIL.put(
                "insert into group_member (group_id, account_id) select g.id, a.id from account_group g join "
                        + "account a on a.name = 'auditor' where g.name = 'approvers'",
                "account auditor was changed past the trail");
        PAST_THE_TRAIL.put("update account set password_hash = 'another' where name = 'approver-1'",
                "account approver-1 was changed past the trail");
        PAST_THE_TRAIL.put("insert into account (name, password_hash, created_at) values ('ghost', 'x', now())",
                "account ghost was added past the trail");
        PAST_THE_TRAIL.put(
                "insert into personal_token (token_hash, account_id, label, created_at, expires_at) select "
                        + "repeat('a', 64), id, 'x', now(), now() from account where name = 'admin'",
                "account admin was changed past the trail");
        PAST_THE_TRAIL.put("update personal_token set may = null where label = 'limited'",
                "account release-engineer was changed past the trail");
        PAST_THE_TRAIL.put(
                "insert into role_grant (group_id, role) select id, 'OPERATOR' from account_group where name = "
                        + "'approvers'",
                "group approvers was added past the trail");
        PAST_THE_TRAIL.put(
                "insert into branch_rule (component_id, pattern, trusted) select id, '*', true from component",
                "branches of component 1 was changed past the trail");
        PAST_THE_TRAIL.put("insert into secret_access (component_id, name) select id, 'MASTER_KEY' from component",
                "grants of component 1 was changed past the trail");
        PAST_THE_TRAIL.put("update environment set rules = replace(rules, '1', '0') where name = 'production'",
                "rules of environment 3 was changed past the trail");
        PAST_THE_TRAIL.put("update place_settings set body = replace(body, 'warn', 'trace')",
                "settings of place 3 was changed past the trail");
        PAST_THE_TRAIL.put("update place_host set side = 'green' where place_id = 2 order by host_id limit 1",
                "settings of place 2 was changed past the trail");
        PAST_THE_TRAIL.put("update hold set lifted_at = now()", "restraint of place 3 was removed past the trail");
        PAST_THE_TRAIL.put(
                "insert into closure (environment_id, reason, set_by, at) select 2, 'x', min(id), now() from account",
                "restraint of environment 2 was added past the trail");
        PAST_THE_TRAIL.put("update version set blocked_at = now()", "restraint of version 1 was added past the trail");
        PAST_THE_TRAIL.put("update place set live_deployment_id = null where id = 1",
                "live in place 1 was removed past the trail");
        PAST_THE_TRAIL.put(
                "insert into ruling (deployment_id, account_id, yes, comment, subject, at) select min(d.id), "
                        + "max(a.id), true, '', repeat('a', 64), now() from deployment d, account a",
                "rulings of deployment 1 was added past the trail");
    }

    @Test
    void whatIsWrittenPastTheTrailIsFound() throws Exception {
        for (String agent : park.agents()) {
            park.startAgent(agent);
        }
        park.component().push("developer", "main", Scenario.files());
        park.as("release-engineer")
                .post("/api/v1/accounts/release-engineer/tokens",
                        Map.of("description", "limited", "may", List.of("look")))
                .good();
        park.liveIn("staging", "1.4.1");
        park.as("release-engineer").put("/api/v1/places/daylight-api/production/hold", Map.of("reason", "the race"))
                .good();
        assertEquals(List.of(), findings(), "all of it was told");
        List<String> before = List.of();
        for (Map.Entry<String, String> attack : PAST_THE_TRAIL.entrySet()) {
            park.tamper(attack.getKey());
            List<String> fresh = new ArrayList<>(findings());
            fresh.removeAll(before);
            assertEquals(1, fresh.size(), () -> attack.getKey() + ": " + fresh);
            assertTrue(fresh.getFirst().startsWith(attack.getValue()), () -> attack.getKey() + ": " + fresh);
            before = findings();
        }
    }

    /** Rows and entries are read as they were at one moment. */
    @Test
    void whatIsUnderWayIsNoFinding() throws Exception {
        AtomicBoolean enough = new AtomicBoolean();
        try (ExecutorService worker = Executors.newSingleThreadExecutor()) {
            Future<Integer> changed = worker.submit(() -> {
                int changes = 0;
                for (; !enough.get() || changes < 20; changes++) {
                    String path = "/api/v1/groups/walkers/members/auditor";
                    (changes % 2 == 0 ? park.as("admin").put(path, Map.of()) : park.as("admin").delete(path)).good();
                }
                return changes;
            });
            try {
                for (int time = 0; time < 30; time++) {
                    assertEquals(List.of(), findings());
                }
            } finally {
                enough.set(true);
            }
            assertTrue(changed.get() >= 20);
        }
    }

    /** An older copy is put back: the trail tells of it for good, and is right again. */
    @Test
    void aRestoreIsAcknowledgedWithItsReasonAndNamesTheGap() throws Exception {
        assertTrue(park.as("admin").post("/api/v1/audit/restore", Map.of("reason", "nothing happened")).detail()
                .contains("No entry of the audit trail is missing"));
        park.as("admin").put("/api/v1/groups/walkers/members/developer", Map.of()).good();
        Await.until("it is numbered", () -> verify().path("notCovered").asLong() == 0);
        park.tamper(
                "set foreign_key_checks = 0; set @last = (select max(position) from audit_leaf); delete from "
                        + "audit_entry where id = (select entry_id from audit_leaf where position = @last); "
                        + "delete from audit_leaf where position = @last; delete from tree_head where size > @last; "
                        + "delete from group_member where account_id = (select id from account where name = "
                        + "'developer')");
        assertEquals(1, findings().size());
        assertEquals(403,
                park.as("auditor").post("/api/v1/audit/restore", Map.of("reason", "I would like that")).status());
        assertTrue(
                park.paseo("admin", "audit", "acknowledge-restore", "--reason", "the disk failed; copy of last night")
                        .out().startsWith("Acknowledged: entries "));
        Await.until("it is right again", () -> findings().isEmpty());
        assertTrue(verify().path("restored").path(0).asString("")
                .contains("were lost when the database was restored from an older copy"), () -> verify().toString());
        assertTrue(park.paseo("auditor", "audit", "list", "--limit", "5").out()
                .contains("the disk failed; copy of last night"));
        park.database.as(
                "set foreign_key_checks = 0; set @last = (select max(position) from audit_leaf); delete from "
                        + "audit_entry where id = (select entry_id from audit_leaf where position = @last)");
        assertTrue(findings().getFirst().matches("entry [0-9]+ is removed"), "another loss is another finding");
    }

    @Test
    void whatWasWrittenLastIsSignedWhenTheServiceStops() throws Exception {
        try (Park other = new Park()) {
            var service = other.startService();
            other.accounts();
            other.as("admin").put("/api/v1/groups/walkers/members/developer", Map.of()).good();
            service.close();
            assertEquals("0", other.database.as("select count(*) from audit_pending").strip());
            assertEquals(other.database.as("select count(*) from audit_leaf").strip(),
                    other.database.as("select max(size) from tree_head").strip());
        }
    }

    /**
     * A release that did not state such things leaves rows without statements: they are stated once, and held against
     * the trail from then on.
     */
    @Test
    void whatWasThereBeforeTheTrailStatedItIsStatedOnce() throws Exception {
        try (Park older = new Park()) {
            var service = older.startService();
            older.accounts();
            service.close();
            older.database.as(
                    "set foreign_key_checks = 0; delete from audit_leaf; delete from audit_pending; delete from "
                            + "audit_entry; delete from tree_head; delete from stated_kind");
            Files.delete(older.folder.resolve("data/audit-heads.txt"));
            older.startService().close();
            older.startService();
            older.signIn("auditor", Park.PASSWORD);
            older.signIn("admin", Files.readString(older.folder.resolve("data/admin-password")).strip());
            assertEquals(List.of(), older.as("auditor").get("/api/v1/audit/verification").good().path("findings")
                    .valueStream().toList());
            List<String> told = older.as("auditor").get("/api/v1/audit?limit=200").good().path("entries").valueStream()
                    .filter(entry -> entry.path("entry").path("what").asString("").equals("first states taken"))
                    .map(entry -> entry.path("entry").path("subject").asString()).toList();
            assertTrue(told.contains("account") && told.size() == Set.copyOf(told).size(), told::toString);
            older.tamper(
                    "insert into role_grant (account_id, role) select id, 'ADMINISTRATOR' from account where name = "
                            + "'developer'");
            assertTrue(older.as("auditor").get("/api/v1/audit/verification").good().path("findings").path(0)
                    .asString("").startsWith("account developer was changed past the trail"));
        }
    }

    @Test
    void theServicesOwnUserCanNeitherChangeNorRemoveEntries() throws Exception {
        String grants = TestDatabase.admin("show grants for 'paseo_service'@'127.0.0.1'");
        String name = park.database.as("select database()").strip();
        for (String table : List.of("audit_entry", "audit_leaf", "tree_head")) {
            String grant = grants.lines().filter(line -> line.contains("`" + name + "`.`" + table + "`")).findFirst()
                    .orElseThrow();
            assertTrue(grant.startsWith("GRANT SELECT, INSERT ON"), grant);
        }
    }
}
