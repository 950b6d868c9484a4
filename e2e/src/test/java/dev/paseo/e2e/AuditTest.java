package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
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
        park.database.as("update audit_entry set body = replace(body, 'developer', 'developes') where body like '%developer%account added%' limit 1");
        assertEquals(1, findings().size());
        assertTrue(findings().getFirst().matches("entry [0-9]+ was changed: it does not agree with its leaf"), findings().toString());
    }

    @Test
    void aRemovedRowIsNamed() throws Exception {
        park.database.as("set foreign_key_checks = 0; delete from audit_entry where id = 3");
        assertEquals(List.of("entry 2 is removed"), findings());
    }

    @Test
    void theLastOnesCutOffBehindTheSignedHeadAreNamed() throws Exception {
        park.database.as("set foreign_key_checks = 0; set @last = (select max(position) from audit_leaf); "
                + "delete from audit_entry where id = (select entry_id from audit_leaf where position = @last); "
                + "delete from audit_leaf where position = @last; delete from tree_head where size > @last");
        assertEquals(1, findings().size());
        assertTrue(findings().getFirst().contains("the last 1 are cut off"), "the file of heads outside the database knows: " + findings());
    }

    @Test
    void theServicesOwnUserCanNeitherChangeNorRemoveEntries() throws Exception {
        String grants = TestDatabase.admin("show grants for 'paseo_service'@'127.0.0.1'");
        String name = park.database.as("select database()").strip();
        for (String table : List.of("audit_entry", "audit_leaf", "tree_head")) {
            String grant = grants.lines().filter(line -> line.contains("`" + name + "`.`" + table + "`")).findFirst().orElseThrow();
            assertTrue(grant.startsWith("GRANT SELECT, INSERT ON"), grant);
        }
    }
}
