package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
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
            component: path-board
            versions: "0.9.{serial}"
            starts: [{push: [main]}]
            stages:
              build: {steps: ['echo "board $PASEO_VERSION $(cat look)" > board.txt'], keep: {board: board.txt}}
            deployment:
              artifacts: [board]
              requires: {daylight-api: ">=1.4.2"}
              on-each-host: ['cp "$PASEO_ARTIFACTS/board/board.txt" "$PASEO_HOST_FOLDER/board"; grep -q good \
            "$PASEO_HOST_FOLDER/board"']
              removal: ['rm -f "$PASEO_HOST_FOLDER/board"']
            route: [{staging: automatic}, {production: on-request}]
            """;

    private static JsonNode promotion(Park park, String set) {
        return park.as("developer").get("/api/v1/sets/" + set).body().path("promotions").path(0);
    }

    private static long promoted(Park park, String set) {
        return park.as("release-engineer")
                .post("/api/v1/sets/" + set + "/promotions", Map.of("environment", "production", "comment", "evening"))
                .good()
                .path("parts").path(0).path("deployment").asLong();
    }

    private static void make(Park park, String name, String api, String board) {
        park.as("release-engineer")
                .post("/api/v1/sets",
                        Map.of("name", name, "members", List.of(Map.of("component", "daylight-api", "version", api),
                                Map.of("component", "path-board", "version", board))))
                .good();
    }

    @Test
    void aSetGoesAsOneAndComesBackAsOne() throws Exception {
        try (Park park = Park.open()) {
            Repository api = park.component();
            Repository board = park.bring("path-board", Map.of());
            park.as("admin").put("/api/v1/environments", Map.of("text", Scenario.environments(park::hostAddress)
                    .replaceFirst("(?s)(  production:.*components:\n)",
                            "$1      path-board: {hosts: {north-hut: {}, ridge-hut: {}}}\n")
                    .replaceFirst("(?s)(  staging:\n    follows: test\n    components:\n)",
                            "$1      path-board: {hosts: {staging-1: {}}}\n")
                    .replace("    follows: test\n", ""), "loosen", true)).good();
            api.push("developer", "main", Scenario.files());
            live(park, "staging", "1.4.1");
            park.deploymentIs(approved(park, park.promote("1.4.1", "production")), "live");
            api.push("developer", "main", Map.of("times", "newer"));
            live(park, "staging", "1.4.2");
            board.push("approver-2", "main", Map.of("paseo.yaml", BOARD, "look", "good"));
            Await.until("the board is in staging", () -> passed(park, "0.9.1"));
            long first = madeAndPromotedInTheConsole(park);
            assertEquals(409,
                    park.as("release-engineer")
                            .post("/api/v1/sets",
                                    Map.of("name", "evening", "members",
                                            List.of(Map.of("component", "daylight-api", "version", "1.4.1"),
                                                    Map.of("component", "path-board", "version", "0.9.1"))))
                            .status(),
                    "a set never changes");
            assertTrue(
                    park.deployment(first).path("gate").toString()
                            .contains("path-board: Requires daylight-api >=1.4.2"),
                    () -> park.deployment(first).path("gate").toString());
            assertEquals("evening is on its way into production already", park.as("release-engineer")
                    .post("/api/v1/sets/evening/promotions", Map.of("environment", "production")).detail());
            assertEquals("waiting", promotion(park, "evening").path("status").asString());
            assertTrue(park.rule("approver-2", first, true, "Mine.").detail()
                    .contains("approver-2 wrote or pushed a commit"), "an author of any member decides about none");
            approved(park, first);
            Await.until("all of it is live, but " + promotion(park, "evening"),
                    () -> promotion(park, "evening").path("status").asString().equals("live"));
            assertEquals("version 1.4.2 ok", park.installed("north-hut"));
            long second = promotion(park, "evening").path("parts").path(1).path("deployment").asLong();
            assertEquals(0, park.deployment(second).path("decisions").size(), "nobody was asked twice");
            api.push("developer", "main", Map.of("times", "newest"));
            live(park, "staging", "1.4.3");
            park.as("admin")
                    .put("/api/v1/places/path-board/production/variables", Map.of("name", "LOOK", "value", "dark"))
                    .good();
            board.push("developer", "main",
                    Map.of("paseo.yaml",
                            BOARD.replace("grep -q good \"$PASEO_HOST_FOLDER/board\"", "test -z \"$LOOK\""), "look",
                            "good again"));
            Await.until("the board is in staging", () -> passed(park, "0.9.2"));
            make(park, "noon", "1.4.3", "0.9.2");
            park.as("release-engineer").put("/api/v1/versions/path-board/0.9.2/block", Map.of("reason", "colours"))
                    .good();
            assertEquals(409,
                    park.as("release-engineer")
                            .post("/api/v1/sets/noon/promotions", Map.of("environment", "production")).status(),
                    "a member is blocked");
            assertEquals(0, park.as("developer").get("/api/v1/sets/noon").body().path("promotions").size(),
                    "and nothing is left of it");
            park.as("admin").delete("/api/v1/versions/path-board/0.9.2/block?reason=judged").good();
            make(park, "night", "1.4.3", "0.9.2");
            approved(park, promoted(park, "night"));
            Await.until("all of it is undone",
                    () -> promotion(park, "night").path("status").asString().equals("undone"));
            live(park, "production", "1.4.2");
            assertEquals("version 1.4.2 ok", park.installed("valley-house"));
            JsonNode undone = park
                    .deployment(promotion(park, "night").path("parts").path(0).path("deployment").asLong())
                    .path("deployment");
            assertEquals("undone", undone.path("status").asString());
            assertTrue(undone.path("reason").asString().contains("path-board 0.9.2 of its set did not go live"),
                    undone.toString());
            assertTrue(park.as("auditor").get("/api/v1/audit?limit=200").body().toString()
                    .contains("did not come to be live"));
            aMemberThatIsNoLongerWhatWasApproved(park, api, board);
        }
    }

    /**
     * While the first goes live, a variable of the second changes: it does not go, and the first comes back. Before, it
     * went as it was then.
     */
    private static void aMemberThatIsNoLongerWhatWasApproved(Park park, Repository api, Repository board)
            throws Exception {
        Path wait = Files.createFile(park.hostFolder("valley-house").resolve("wait"));
        api.push("developer", "main", Map.of("deploy/install.sh",
                "#!/bin/sh\nset -e\nwhile test -e \"$PASEO_HOST_FOLDER/wait\"; do sleep 0.1; done\ncp "
                        + "\"$PASEO_ARTIFACTS/app/app.txt\" \"$PASEO_HOST_FOLDER/version\"\n"));
        live(park, "staging", "1.4.4");
        board.push("developer", "main", Map.of("paseo.yaml", BOARD, "look", "good"));
        Await.until("the board is in staging", () -> passed(park, "0.9.3"));
        make(park, "dawn", "1.4.4", "0.9.3");
        long first = approved(park, promoted(park, "dawn"));
        Await.until("the first is on its way", () -> park.status(first).equals("deploying"));
        park.as("admin").put("/api/v1/places/path-board/production/variables", Map.of("name", "LOOK", "value", "light"))
                .good();
        Files.delete(wait);
        Await.until("all of it is undone", () -> promotion(park, "dawn").path("status").asString().equals("undone"));
        live(park, "production", "1.4.2");
        assertTrue(park.deployment(first).path("deployment").path("reason").asString().contains(
                "path-board 0.9.3 of its set could not be requested: the variables changed since the set was approved"),
                () -> park.deployment(first).toString());
    }

    /** The number of the deployment at whose gate the set waits. */
    private static long madeAndPromotedInTheConsole(Park park) {
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.open("/sets");
            browser.click(By.xpath("//button[contains(., 'Make a set')]"));
            browser.see(By.cssSelector(".make-set input")).sendKeys("evening");
            choose(browser, 1, "daylight-api", "1.4.2");
            choose(browser, 2, "path-board", "0.9.1");
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
        new Select(browser.see(By.cssSelector("[aria-label='Component " + which + "']")))
                .selectByVisibleText(component);
        browser.click(By.xpath("//select[@aria-label='Version " + which + "']/option[.='" + version + "']"));
    }

    private static void live(Park park, String environment, String version) {
        Await.until(version + " is live in " + environment, () -> park.as("developer")
                .get("/api/v1/places/daylight-api/" + environment).body().path("version").asString("").equals(version));
    }

    private static boolean passed(Park park, String version) {
        return park.as("developer").get("/api/v1/versions/path-board/" + version + "/passages").body().valueStream()
                .anyMatch(each -> each.path("status").asString("").equals("ended"));
    }

    private static long approved(Park park, long id) {
        park.rule("approver-1", id, true, "Looks good.").good();
        return id;
    }
}
