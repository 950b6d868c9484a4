package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import tools.jackson.databind.JsonNode;

/** A pipeline file changed by forms, tried on a branch of its own, committed, in force. */
class FormsTest {

    private static final String FILE = """
            paseo: 1
            component: sun-board      # as it is registered
            versions: "1.{serial}"

            starts:
              - push: [main]          # and no other

            stages:
              # builds once
              compile:
                steps: [./build.sh]
              # holds it against the almanac
              compare:
                steps: [./build.sh]
            """;

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static Repository brought(String name) throws Exception {
        Repository repository = park.bring(name, Map.of());
        repository.push("developer", "main", Map.of("paseo.yaml", FILE.replace("sun-board", name), "build.sh",
                "#!/bin/sh\necho built\n"));
        park.runEnds(name, 1);
        return repository;
    }

    @Test
    void aStageIsAddedPutInOrderAndGivenAConditionAndTheCommentsStay() throws Exception {
        brought("sun-board");
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.open("/components/sun-board/pipeline");
            browser.click(By.xpath("//button[@role='tab'][.='Forms']"));
            browser.see(By.xpath("//label[contains(., 'Its name')]/input")).sendKeys("smoke");
            browser.click(By.xpath("//button[.='Add stage']"));
            browser.see(By.xpath("//input[@value='./build.sh']"));
            browser.click(By.xpath("//button[@aria-label='smoke up']"));
            browser.click(By.xpath("//button[starts-with(., 'More:')]"));
            WebElement wanted = browser.see(By.xpath("//label[starts-with(., 'wanted-if')]/following-sibling::input"));
            wanted.sendKeys("branch == 'mane'");
            browser.seeText("Would have been wanted in 0 of the last 1 runs");
            wanted.sendKeys(Keys.BACK_SPACE, Keys.BACK_SPACE, Keys.BACK_SPACE, "in'");
            browser.seeText("Would have been wanted in 1 of the last 1 runs");
            wanted.sendKeys(Keys.ENTER);
            browser.seeText("No problem");
            WebElement attempt = browser.see(By.xpath("//button[contains(., 'Try it')]"));
            Await.until("it may be tried", attempt::isEnabled);
            browser.click(By.xpath("//button[contains(., 'Try it')]"));
            browser.seeText("a branch of its own");
            JsonNode tried = park.runEnds("sun-board", 2).path("run");
            assertEquals("try/release-engineer-1", tried.path("branch").asString());
            assertTrue(tried.path("version").asString().contains("-try-"), tried::toString);
            browser.see(By.id("message")).sendKeys("Smoke it before it is compared");
            WebElement commit = browser.see(By.xpath("//button[contains(., 'Commit to main')]"));
            Await.until("the commit may be made", commit::isEnabled);
            browser.click(By.xpath("//button[contains(., 'Commit to main')]"));
            browser.seeText("it is in force");
        }
        String text = park.as("developer").get("/api/v1/components/sun-board/pipeline").good().path("text").asString();
        assertEquals(
                FILE.replace("  # holds it", "  smoke:\n    steps: [./build.sh]\n    wanted-if: \"branch == 'main'\"\n"
                        + "  # holds it"),
                text);
        JsonNode run = park.runEnds("sun-board", 3);
        assertEquals(List.of("compile", "smoke", "compare"),
                run.path("stages").valueStream().map(stage -> stage.path("name").asString()).toList());
    }

    @Test
    void formsWaitForATextThatCanBeRead() throws Exception {
        brought("path-notes");
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.open("/components/path-notes/pipeline");
            browser.click(By.xpath("//button[@role='tab'][.='Forms']"));
            browser.see(By.xpath("//button[.='Add stage']"));
            browser.all(By.cssSelector(".cm-line")).getLast().click();
            browser.type(Keys.chord(Keys.CONTROL, Keys.END), "  more: [");
            browser.seeText("Forms wait until line");
            browser.type(Keys.BACK_SPACE, "&here [a]");
            browser.seeText("The text has anchors");
        }
    }

    /** Patterns are held against pushes that were. */
    @Test
    void aTriggerSaysWhichPushesItNames() throws Exception {
        brought("lake-notes");
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.open("/components/lake-notes/pipeline");
            browser.click(By.xpath("//button[@role='tab'][.='Forms']"));
            browser.click(By.xpath("//button[@role='tab'][.='Triggers']"));
            browser.seeText("Names 1 of the last 1 pushes: main.");
            WebElement branch = browser.see(By.xpath("//input[@aria-label='push 1']"));
            branch.sendKeys("tain", Keys.ENTER);
            browser.seeText("Names 0 of the last 1 pushes.");
        }
    }

    /** By the client too; what is tried is not trusted, and does not walk. */
    @Test
    void aFileIsTriedByTheClient() throws Exception {
        brought("hut-notes");
        Path file = Files.writeString(park.folder.resolve("hut.yaml"),
                FILE.replace("sun-board", "hut-notes").replace("compare:", "weigh:"));
        Park.Said said = park.paseo("developer", "start", "hut-notes", "--file", file.toString());
        assertEquals(0, said.code(), said.out());
        assertTrue(said.out().startsWith("Started hut-notes#2 of try/developer-1, a branch of its own with "),
                said::out);
        JsonNode run = park.runEnds("hut-notes", 2);
        assertEquals("passed", run.path("run").path("status").asString());
        assertEquals("weigh", run.path("stages").path(1).path("name").asString());
        assertEquals(0, run.path("route").size());
        Park.Said wrong = park.paseo("developer", "start", "hut-notes", "--file", file.toString(), "--up-to", "test");
        assertEquals(2, wrong.code());
        Files.writeString(file, "paseo: 1\n");
        assertTrue(park.paseo("developer", "start", "hut-notes", "--file", file.toString()).out()
                .contains("needs component: its registered name"));
    }

    /** Rules as forms, with the sentence that each makes; loaded by the same door as a text. */
    @Test
    void aGateIsChangedByFormsAndSaysWhatItAsks() throws Exception {
        park.as("admin").put("/api/v1/environments", Map.of("text", """
                environments:
                  test: {}
                  staging:
                    follows: test   # as ever
                    to-enter:
                      approvals: {from: approvers, count: 1}
                      facts: {No test has failed: "tests.failed == 0"}
                """, "loosen", true)).good();
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("admin", Files.readString(park.folder.resolve("data/admin-password")).strip());
            browser.open("/environments-file?environment=staging");
            browser.click(By.xpath("//button[@role='tab'][.='Forms']"));
            browser.seeText("One of approvers approves.");
            browser.seeText("No test has failed (tests.failed == 0)");
            browser.seeText("no promotion yet over which it could be tried.");
            WebElement count = browser.see(By.xpath("//label[starts-with(., 'count')]/following-sibling::input"));
            count.sendKeys(Keys.BACK_SPACE, "2", Keys.ENTER);
            browser.seeText("2 of approvers approve");
            browser.click(By.xpath("//button[starts-with(., 'More: checklist')]"));
            browser.see(By.xpath("//label[starts-with(., 'live-for')]/following-sibling::input")).sendKeys("2h",
                    Keys.ENTER);
            browser.seeText("It has been live and healthy for 2 h in one stretch.");
            WebElement load = browser.see(By.xpath("//button[.='Load it']"));
            Await.until("it may be loaded", load::isEnabled);
            browser.click(By.xpath("//button[.='Load it']"));
            browser.seeText("Now");
        }
        String rules = park.as("developer").get("/api/v1/environments/staging/rules").good().path("words").toString();
        assertTrue(rules.contains("2 of approvers approve") && rules.contains("2 h in one stretch"), rules);
    }
}
