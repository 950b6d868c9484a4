package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Who can write the database's rows cannot move a secret to where it was not given. */
class BoundSecretsTest {

    private static void set(Park park, String name, String value) {
        park.as("admin").put("/api/v1/secrets", Map.of("name", name, "value", value, "component", "purse")).good();
    }

    private static void run(Park park, long number, String status) {
        Await.until("run " + number + " is " + status,
                () -> park.run("purse", number).path("run").path("status").asString("").equals(status));
    }

    @Test
    void aValueOpensInItsOwnRowAlone() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.bring("purse", Map.of("secrets", List.of("PLAIN_KEY")));
            set(park, "PLAIN_KEY", "what everybody may read");
            set(park, "DEPLOY_KEY", "what only deployments have");
            repository.push("developer", "main", Map.of("paseo.yaml", """
                    paseo: 1
                    component: purse
                    versions: "1.{serial}"
                    starts: [{push: [main]}]
                    stages:
                      use: {secrets: [PLAIN_KEY], steps: ['test "$PLAIN_KEY" = "what everybody may read"']}
                    """));
            run(park, 1, "passed");
            park.database.as(
                    "update secret_revision r join secret s on s.id = r.secret_id join (select x.ciphertext, "
                            + "x.data_key from secret_revision x "
                            + "join secret y on y.id = x.secret_id where y.name = 'DEPLOY_KEY') d set r.ciphertext "
                            + "= d.ciphertext, r.data_key = d.data_key where s.name = 'PLAIN_KEY'");
            repository.push("developer", "main", Map.of("README", "again"));
            run(park, 2, "failed");
            String reason = park.run("purse", 2).path("stages").path(0).path("reason").asString("");
            assertTrue(reason.startsWith("a secret cannot be opened: its row was changed, or is another's"), reason);
            set(park, "PLAIN_KEY", "what everybody may read");
            repository.push("developer", "main", Map.of("README", "and again"));
            run(park, 3, "passed");
        }
    }
}
