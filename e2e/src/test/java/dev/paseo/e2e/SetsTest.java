package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;
import tools.jackson.databind.JsonNode;

/** Two components promoted as one: one gate for both, in order, and undone as one when the second fails. */
class SetsTest {

    private static final String BOARD = """
            paseo: 1
            component: quay-board
            versions: "0.9.{serial}"
            starts: [{push: [main]}]
            stages:
              build: {steps: ['echo "board $PASEO_VERSION $(cat look)" > board.txt'], keep: {board: board.txt}}
            deployment:
              artifacts: [board]
              requires: {tide-api: ">=1.4.2"}
              on-each-host: ['cp "$PASEO_ARTIFACTS/board/board.txt" "$PASEO_HOST_FOLDER/board"; grep -q good "$PASEO_HOST_FOLDER/board"']
              removal: ['rm -f "$PASEO_HOST_FOLDER/board"']
            route: [{staging: automatic}, {production: on-request}]
            """;

    private static JsonNode promotion(Harbour harbour, String set) {
        return harbour.as("developer").get("/api/v1/sets/" + set).body().path("promotions").path(0);
    }

    private static long promoted(Harbour harbour, String set) {
        return harbour.as("release-engineer").post("/api/v1/sets/" + set + "/promotions", Map.of("environment", "production", "comment", "evening")).good()
                .path("parts").path(0).path("deployment").asLong();
    }

    private static void make(Harbour harbour, String name, String api, String board) {
        harbour.as("release-engineer").post("/api/v1/sets", Map.of("name", name, "members", List.of(Map.of("component", "tide-api", "version", api), Map.of("component", "quay-board", "version", board)))).good();
    }

    @Test
    void aSetGoesAsOneAndComesBackAsOne() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository api = harbour.component();
            Repository board = harbour.bring("quay-board", Map.of());
            harbour.as("admin").put("/api/v1/environments", Map.of("text", Scenario.environments(harbour::hostAddress)
                    .replaceFirst("(?s)(  production:.*components:\n)", "$1      quay-board: {hosts: {north-quay: {}, south-quay: {}}}\n")
                    .replaceFirst("(?s)(  staging:\n    follows: test\n    components:\n)", "$1      quay-board: {hosts: {staging-1: {}}}\n")
                    .replace("    follows: test\n", ""))).good();
            api.push("developer", "main", Scenario.files());
            live(harbour, "staging", "1.4.1");
            harbour.deploymentIs(approved(harbour, harbour.promote("1.4.1", "production")), "live");
            api.push("developer", "main", Map.of("tides", "newer"));
            live(harbour, "staging", "1.4.2");
            board.push("approver-2", "main", Map.of("paseo.yaml", BOARD, "look", "good"));
            Await.until("the board is in staging", () -> passed(harbour, "0.9.1"));
            long first = madeAndPromotedInTheConsole(harbour);
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/sets", Map.of("name", "evening", "members", List.of(Map.of("component", "tide-api", "version", "1.4.1"),
                    Map.of("component", "quay-board", "version", "0.9.1")))).status(), "a set never changes");
            assertTrue(harbour.deployment(first).path("gate").toString().contains("quay-board: Requires tide-api >=1.4.2"), () -> harbour.deployment(first).path("gate").toString());
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/sets/evening/promotions", Map.of("environment", "production")).status(), "it is on its way already");
            assertEquals("waiting", promotion(harbour, "evening").path("status").asString());
            assertTrue(harbour.rule("approver-2", first, true, "Mine.").detail().contains("approver-2 wrote or pushed a commit"), "an author of any member decides about none");
            approved(harbour, first);
            Await.until("all of it is live, but " + promotion(harbour, "evening"), () -> promotion(harbour, "evening").path("status").asString().equals("live"));
            assertEquals("version 1.4.2 ok", harbour.installed("north-quay"));
            long second = promotion(harbour, "evening").path("parts").path(1).path("deployment").asLong();
            assertEquals(0, harbour.deployment(second).path("rulings").size(), "nobody was asked twice");
            api.push("developer", "main", Map.of("tides", "newest"));
            live(harbour, "staging", "1.4.3");
            harbour.as("admin").put("/api/v1/places/quay-board/production/variables", Map.of("name", "LOOK", "value", "dark")).good();
            board.push("developer", "main", Map.of("paseo.yaml", BOARD.replace("grep -q good \"$PASEO_HOST_FOLDER/board\"", "test -z \"$LOOK\""), "look", "good again"));
            Await.until("the board is in staging", () -> passed(harbour, "0.9.2"));
            make(harbour, "noon", "1.4.3", "0.9.2");
            harbour.as("release-engineer").put("/api/v1/versions/quay-board/0.9.2/block", Map.of("reason", "colours")).good();
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/sets/noon/promotions", Map.of("environment", "production")).status(), "a member is blocked");
            assertEquals(0, harbour.as("developer").get("/api/v1/sets/noon").body().path("promotions").size(), "and nothing is left of it");
            harbour.as("admin").delete("/api/v1/versions/quay-board/0.9.2/block?reason=judged").good();
            make(harbour, "night", "1.4.3", "0.9.2");
            approved(harbour, promoted(harbour, "night"));
            Await.until("all of it is undone", () -> promotion(harbour, "night").path("status").asString().equals("undone"));
            live(harbour, "production", "1.4.2");
            assertEquals("version 1.4.2 ok", harbour.installed("lighthouse"));
            JsonNode undone = harbour.deployment(promotion(harbour, "night").path("parts").path(0).path("deployment").asLong()).path("deployment");
            assertEquals("undone", undone.path("status").asString());
            assertTrue(undone.path("reason").asString().contains("quay-board 0.9.2 of its set did not go live"), undone.toString());
            assertTrue(harbour.as("auditor").get("/api/v1/audit?limit=200").body().toString().contains("set undone"));
        }
    }

    /** The number of the deployment at whose gate the set waits. */
    private static long madeAndPromotedInTheConsole(Harbour harbour) {
        try (Browser browser = new Browser(harbour.address())) {
            browser.signIn("release-engineer", Harbour.PASSWORD);
            browser.open("/sets");
            browser.click(By.xpath("//button[contains(., 'Make a set')]"));
            browser.see(By.cssSelector(".make-set input")).sendKeys("evening");
            choose(browser, 1, "tide-api", "1.4.2");
            choose(browser, 2, "quay-board", "0.9.1");
            browser.click(By.xpath("//button[.='Make the set']"));
            browser.seeText("It was not promoted yet.");
            browser.click(By.xpath("//button[.='Promote into production']"));
            browser.seeText("If one does not go live, all of it is undone.");
            browser.click(By.xpath("//button[.='Promote all of it']"));
            browser.see(By.cssSelector(".criteria"));
            return Long.parseLong(browser.path().replace("/deployments/", ""));
        }
    }

    private static void choose(Browser browser, int which, String component, String version) {
        new Select(browser.see(By.cssSelector("[aria-label='Component " + which + "']"))).selectByVisibleText(component);
        browser.click(By.xpath("//select[@aria-label='Version " + which + "']/option[.='" + version + "']"));
    }

    private static void live(Harbour harbour, String environment, String version) {
        Await.until(version + " is live in " + environment, () -> harbour.as("developer").get("/api/v1/places/tide-api/" + environment).body().path("version").asString("").equals(version));
    }

    private static boolean passed(Harbour harbour, String version) {
        return harbour.as("developer").get("/api/v1/versions/quay-board/" + version + "/passages").body().valueStream().anyMatch(each -> each.path("status").asString("").equals("ended"));
    }

    private static long approved(Harbour harbour, long id) {
        harbour.rule("approver-1", id, true, "Looks good.").good();
        return id;
    }
}
