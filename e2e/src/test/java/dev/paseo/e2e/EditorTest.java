package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import tools.jackson.databind.JsonNode;

/** The pipeline file in a real browser: marked, completed, committed, in force; and a torrent of a log, followed. */
class EditorTest {

    private static final String FILE = """
            paseo: 1
            component: sun-board
            versions: "1.{serial}"
            starts:
              - push: [main]
            stages:
              compile:
                steps: [./build.sh]
            """;

    @Test
    void aMistakeIsMarkedAKeyIsCompletedAndWhatIsCommittedIsInForce() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.bring("sun-board", Map.of());
            repository.push("developer", "main", Map.of("paseo.yaml", FILE, "build.sh", "#!/bin/sh\necho built\n"));
            park.runEnds("sun-board", 1);
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                browser.open("/components/sun-board/pipeline");
                WebElement editor = browser.see(By.cssSelector(".cm-content"));
                browser.seeText("No problem");
                browser.all(By.cssSelector(".cm-line")).getLast().click();
                browser.type(Keys.chord(Keys.CONTROL, Keys.END), "  smoke:\n", "stepps: [./test.sh]");
                browser.seeText("is not a key that is known here; did you mean steps?");
                assertEquals("stepps", browser.text(By.cssSelector(".cm-lintRange-error")));
                assertTrue(browser.see(By.xpath("//button[contains(., 'Commit to')]"))
                        .getDomAttribute("disabled") != null);
                browser.type(Keys.chord(Keys.SHIFT, Keys.HOME), Keys.BACK_SPACE, "st");
                assertEquals("steps",
                        browser.text(By.cssSelector(".cm-tooltip-autocomplete li[aria-selected] .cm-completionLabel")));
                // By the mouse: a key that comes at once with the offer is taken for typing, not for accepting it.
                browser.click(By.cssSelector(".cm-tooltip-autocomplete li[aria-selected]"));
                browser.type("[./build.sh]");
                browser.seeText("No problem");
                assertTrue(editor.getText().contains("    steps: [./build.sh]"), editor::getText);
                browser.see(By.id("message")).sendKeys("Test as well");
                WebElement commit = browser.see(By.xpath("//button[contains(., 'Commit to main')]"));
                Await.until("the commit may be made", commit::isEnabled);
                commit.click();
                browser.seeText("it is in force");
            }
            JsonNode second = park.runEnds("sun-board", 2);
            assertEquals(List.of("compile", "smoke"),
                    second.path("stages").valueStream().map(stage -> stage.path("name").asString()).toList());
            assertEquals("release-engineer <release-engineer@park.example>",
                    second.path("run").path("commitAuthor").asString());
            repository.pull();
            repository.push("developer", "main", Map.of("README", "the very next push"));
            assertEquals(2, park.runEnds("sun-board", 3).path("stages").size());
            refusals(park, second.path("run").path("commit").asString());
        }
    }

    private static void refusals(Park park, String old) {
        Map<String, String> request = Map.of("branch", "main", "base", old, "text", FILE, "message", "Back");
        Client.Answer moved = park.as("release-engineer").post("/api/v1/components/sun-board/pipeline/commits",
                request);
        assertEquals(409, moved.status());
        assertTrue(moved.detail()
                .matches("main was changed since this text was begun and is now at [0-9a-f]{8}\\. Nothing "
                        + "was committed; compare and commit again"),
                moved::detail);
        assertEquals(403, park.as("auditor").post("/api/v1/components/sun-board/pipeline/commits", request).status());
        Client.Answer trusted = park.as("developer").post("/api/v1/components/sun-board/pipeline/commits", request);
        assertEquals(403, trusted.status());
        assertTrue(trusted.detail().startsWith(
                "developer may not commit to main of sun-board, which is trusted (commit to a branch of its own, "
                        + "such as pipeline/developer)"),
                trusted::detail);
        assertEquals("pipeline/developer",
                park.as("developer").get("/api/v1/components/sun-board/pipeline").good().path("ownBranch").asString());
        assertEquals(201, park.as("developer").post("/api/v1/components/sun-board/pipeline/commits",
                Map.of("branch", "pipeline/developer", "base", park.as("developer")
                        .get("/api/v1/components/sun-board/pipeline").good().path("commit").asString(), "text", FILE,
                        "message", "Mine"))
                .status());
        Client.Answer broken = park.as("release-engineer").post("/api/v1/components/sun-board/pipeline/commits",
                Map.of("branch", "main", "base", old, "text", "paseo: 1\n", "message", "Back"));
        assertEquals(422, broken.status());
        for (String branch : List.of("-x", "a..b", "../x", "a b")) {
            assertEquals(400, park.as("release-engineer").post("/api/v1/components/sun-board/pipeline/commits",
                    Map.of("branch", branch, "base", old, "text", FILE, "message", "Back")).status(), branch);
        }
    }

    @Test
    void aTorrentOfALogIsFollowedWithoutAStall() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.bring("torrent", Map.of());
            // Ten thousand lines a second, for eight seconds.
            String script = "i=0; while [ $i -lt 80 ]; do seq -f \"$i line %06g of the torrent\" 1 1000; "
                    + "i=$((i+1)); sleep 0.1; done; echo the last line";
            repository.push("developer", "main", Map.of("paseo.yaml",
                    "paseo: 1\ncomponent: torrent\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages: "
                            + "{pour: {steps: ['./pour.sh']}}\n",
                    "pour.sh", "#!/bin/sh\n" + script + "\n"));
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("developer", Park.PASSWORD);
                browser.open("/runs/torrent/1");
                browser.see(By.cssSelector(".log-line"));
                // What the page does itself shows in every second; the machine, whose two cores pour as well, in one or
                // two.
                List<Long> longest = browser.longestFrames(5);
                assertTrue(longest.stream().sorted().toList().get(2) < 1000,
                        "the page stood still for " + longest + " ms, second by second");
                browser.seeText("the last line");
                browser.see(By.cssSelector(".log-search input")).sendKeys("79 line 000500");
                browser.see(By.xpath("//label[contains(@class, 'log-search')]/span[normalize-space(.)='1']"));
                browser.type(Keys.ENTER);
                browser.see(By.cssSelector(".log-line.current mark"));
            }
            assertEquals(80_001, park.as("developer").get("/api/v1/runs/torrent/1/stages/pour/log/search?text=line")
                    .good().path("total").asLong());
        }
    }
}
