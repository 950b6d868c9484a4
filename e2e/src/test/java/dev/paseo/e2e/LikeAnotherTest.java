package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;
import tools.jackson.databind.JsonNode;

/** What works is the beginning of another: a component's file, a place, and environments held side by side. */
class LikeAnotherTest {

    private static final String FILE = """
            paseo: 1
            component: sun-board
            versions: "1.{serial}"
            starts: [{push: [main]}]
            deployment:
              on-each-host: ["cp -r . \\"$PASEO_HOST_FOLDER/sun-board\\""]
            route: [{test: automatic}]
            """;

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("test-1");
        park.bring("sun-board", Map.of()).push("developer", "main", Map.of("paseo.yaml", FILE));
        park.as("admin").put("/api/v1/environments", Map.of("text", """
                environments:
                  test:
                    components:
                      sun-board: {hosts: {test-1: {}}, variables: {LOG_LEVEL: debug, ZONE: UTC}, secrets: [DATA_KEY]}
                  staging:
                    follows: test
                    to-enter: {approvals: {from: approvers}, facts: {No test has failed: "tests.failed == 0"}}
                """, "loosen", true)).good();
    }

    @AfterAll
    static void close() {
        park.close();
    }

    @Test
    void aComponentBeginsAsAnotherAndItsPlaceToo() throws Exception {
        Repository repository = park.bring("moon-board", Map.of());
        Path file = park.folder.resolve("moon-paseo.yaml");
        Park.Said drafted = park.paseo("developer", "draft", "--like", "sun-board", "--component", "moon-board",
                "--into",
                file.toString());
        assertEquals(0, drafted.code(), drafted.out());
        String text = Files.readString(file);
        assertEquals("# Begun as that of sun-board. It is still named in line 7.\n"
                + FILE.replace("component: sun-board", "component: moon-board"), text);
        Park.Said placed = park.paseo("admin", "environment", "place", "moon-board", "test", "test-1", "--like",
                "sun-board:test", "--variable", "LOG_LEVEL=info");
        assertEquals(0, placed.code(), placed.out());
        assertTrue(
                placed.out().contains(
                        "It names DATA_KEY; their values are not copied. Set each: paseo secret set DATA_KEY "
                                + "--component "
                                + "moon-board --environment test"),
                placed.out());
        JsonNode variables = park.as("developer").get("/api/v1/places/moon-board/test").good().path("variables");
        assertEquals("info", variables.path("LOG_LEVEL").asString());
        assertEquals("UTC", variables.path("ZONE").asString());
        Park.Said nowhere = park.paseo("admin", "environment", "place", "moon-board", "staging", "test-1=http://a:1",
                "--like", "sun-board:production");
        assertTrue(nowhere.code() != 0 && nowhere.out().contains("production"), nowhere.out());
        repository.push("developer", "main", Map.of("paseo.yaml", text));
        assertEquals("passed", park.runEnds("moon-board", 1).path("run").path("status").asString());
    }

    @Test
    void twoEnvironmentsAreHeldSideBySide() throws Exception {
        String said = park.paseo("developer", "environment", "compare", "test", "staging").out();
        assertTrue(said.contains("No test has failed (tests.failed == 0)") && said.contains("before it"), said);
        assertTrue(said.contains("-      sun-board:") || said.contains("-    components:"), said);
        assertEquals("test and test say the same.\n",
                park.paseo("developer", "environment", "compare", "test", "test").out());
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("developer", Park.PASSWORD);
            browser.open("/environments/staging");
            new Select(browser.see(By.xpath("//label[contains(., 'Compare with')]/select[option='test']")))
                    .selectByVisibleText("test");
            browser.seeText("No test has failed (tests.failed == 0)");
            browser.seeText("only in staging");
        }
    }

    @Test
    void theGuidedWayBeginsAsAnother() throws Exception {
        Repository repository = new Repository(park.folder.resolve("repositories"), "star-board");
        repository.push("developer", "main", Map.of("README", "Stars\n"));
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.open("/bring-in");
            browser.see(By.id("name")).sendKeys("star-board");
            browser.see(By.id("repository")).sendKeys(repository.url());
            new Select(browser.see(By.xpath("//label[contains(., 'Begin like')]/select[option[@value='sun-board']]")))
                    .selectByValue("sun-board");
            browser.click(By.xpath("//button[.='Look at it']"));
            browser.seeText("# Begun as that of sun-board.");
            browser.click(By.xpath("//button[contains(., 'Register star-board')]"));
            browser.seeText("Where star-board runs");
            browser.click(By.xpath("//label[contains(., 'test-1')]"));
            new Select(browser.see(By.xpath("//label[contains(., 'Variables and secrets like')]/select")))
                    .selectByValue("sun-board:test");
            browser.click(By.xpath("//button[.='Show the change']"));
            browser.seeText("star-board gets a place there, on test-1");
            browser.seeText("LOG_LEVEL: debug");
        }
    }
}
