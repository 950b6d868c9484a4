package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** An administrator's first day: from an empty service to a promotion, in a browser, without the client. */
class FirstHoursTest {

    private static final String FILE = """
            paseo: 1
            component: notice-board
            versions: "1.0.{serial}"
            starts:
              - push: [main]
            tree: site
            deployment:
              artifacts: [tree]
              on-each-host: ["tar -xf $PASEO_ARTIFACTS/tree/* -C $PASEO_HOST_FOLDER"]
              removal: ["rm -f $PASEO_HOST_FOLDER/notice.txt"]
            route:
              - test: on-request
            """;

    private static void fill(Browser browser, String label, String text) {
        browser.see(By.xpath("//*[@role='dialog']//label[starts-with(normalize-space(.), '" + label + "')]//input"))
                .sendKeys(text);
    }

    private static void press(Browser browser, String word) {
        browser.click(By.xpath("//*[@role='dialog']//button[.='" + word + "']"));
    }

    private static void ticked(Browser browser, List<String> done, List<String> left) {
        browser.click(By.xpath("//a[@aria-label='Paseo, whereabouts']"));
        browser.see(By.xpath("//section[@aria-label='First hours']"));
        done.forEach(each -> browser.see(By.xpath("//*[contains(@class, 'sr-only')][.='" + each + ": there']")));
        left.forEach(each -> browser.see(By.xpath("//*[contains(@class, 'sr-only')][.='" + each + ": not yet']")));
    }

    @Test
    void anEmptyServiceSaysWhatToDoAndTicksItAsItHappens() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.signIn("admin", Files.readString(park.folder.resolve("data/admin-password")).strip());
            Repository repository = new Repository(park.folder.resolve("repositories"), "notice-board");
            repository.push("developer", "main", Map.of("paseo.yaml", FILE, "site/notice.txt", "The path is open.\n"));
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("admin", Files.readString(park.folder.resolve("data/admin-password")).strip());
                ticked(browser, List.of(), List.of("agent", "environment", "component", "colleague"));
                browser.click(By.xpath("//main//a[.='Enrol an agent']"));
                browser.click(By.xpath("//main//button[.='Enrol an agent']"));
                fill(browser, "Name", "lodge");
                press(browser, "Give me the lines");
                assertTrue(browser.see(By.xpath("//*[@role='dialog']//pre")).getText().contains("paseo-agent"));
                press(browser, "Done");
                // Pasted lines are followed by AgentArchiveTest; here an agent is started as the park starts them.
                park.startAgent("test-1");
                ticked(browser, List.of("agent"), List.of("environment", "component", "colleague"));
                browser.click(By.xpath("//main//a[.='Write the first one']"));
                WebElement text = browser.see(By.cssSelector(".cm-content"));
                text.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE, "environments: {test: {}}");
                WebElement load = browser.see(By.xpath("//button[.='Load it']"));
                Await.until("it may be loaded", load::isEnabled);
                load.click();
                Await.until("it is loaded", () -> !park.as("admin").get("/api/v1/environments").good().isEmpty());
                browser.click(By.xpath("//a[@aria-label='Paseo, whereabouts']"));
                browser.click(By.xpath("//main//a[.='Add an account']"));
                browser.click(By.xpath("//main//button[.='New account']"));
                fill(browser, "Name", "ada");
                fill(browser, "Roles", "approver");
                press(browser, "Add it");
                browser.see(By.xpath("//*[@role='dialog']//pre"));
                press(browser, "Done");
                ticked(browser, List.of("agent", "environment", "colleague"), List.of("component"));
                browser.click(By.xpath("//main//a[.='Bring in a component']"));
                browser.see(By.id("name")).sendKeys("notice-board");
                browser.see(By.id("repository")).sendKeys(repository.url());
                browser.click(By.xpath("//button[.='Look at it']"));
                browser.seeText("Start a run of main");
                browser.click(By.xpath("//button[contains(., 'Register notice-board')]"));
                browser.see(By.xpath("//h1[contains(., 'notice-board')]"));
                Await.until("it is sealed",
                        () -> park.as("admin").get("/api/v1/versions/notice-board/1.0.1").status() == 200);
                browser.click(By.xpath("//main//a[.='1.0.1']"));
                browser.seeText("notice-board has no place in test: the environments file gives it no hosts there");
                browser.click(By.xpath("//main//a[.='Where it runs']"));
                browser.click(By.xpath("//label[contains(., 'test-1')]"));
                WebElement address = browser.see(By.xpath("//input[starts-with(@aria-label, 'Address of')]"));
                address.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
                browser.click(By.xpath("//button[.='Show the change']"));
                WebElement place = browser.see(By.xpath("//button[.='Load it']"));
                Await.until("it may be loaded", place::isEnabled);
                place.click();
                Await.until("it has a place", () -> park.as("admin").get("/api/v1/places/notice-board/test")
                        .status() == 200);
                browser.click(By.xpath("//a[@aria-label='Paseo, whereabouts']"));
                browser.click(By.xpath("//main//a[.='1.0.1']"));
                browser.click(By.xpath("//button[.='Deploy to test']"));
                browser.seeText("Nothing is live in test yet.");
                press(browser, "Deploy to test now");
                browser.seeText("notice-board 1.0.1 is live in test");
            }
        }
    }
}
