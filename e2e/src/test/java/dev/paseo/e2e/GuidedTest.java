package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** In the console, from a repository that Paseo has never seen to a version that is live, without another tool. */
class GuidedTest {

    @Test
    void fromARepositoryToLive() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("test-1");
            park.as("admin").put("/api/v1/accounts/release-engineer",
                    Map.of("roles", List.of("release-engineer", "operator"))).good();
            park.as("admin").put("/api/v1/environments",
                    Map.of("text", "environments: {test: {components: {}}}\n", "loosen", true)).good();
            Repository repository = new Repository(park.folder.resolve("repositories"), "trail-notes");
            repository.push("developer", "main", Map.of("site/index.html", "The ridge is open.", "README.md",
                    "# Notes of the trails\n"));
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                browser.open("/bring-in");
                browser.see(By.id("name")).sendKeys("trail-notes");
                browser.see(By.id("repository")).sendKeys(repository.url());
                browser.click(By.xpath("//button[.='Look at it']"));
                browser.seeText("Which folder's files are deployed?");
                WebElement tree = browser.see(By.xpath("//label[contains(., 'Which folder')]//input"));
                assertEquals("site", tree.getDomProperty("value"));
                tree.sendKeys("s", Keys.ENTER);
                browser.seeText("there is none named sites");
                tree.sendKeys(Keys.BACK_SPACE, Keys.ENTER);
                browser.click(By.xpath("//button[@role='radio'][.='archive']"));
                browser.seeText("systemctl --user restart trail-notes");
                WebElement restart = browser.see(By.xpath("//label[contains(., 'Which command restarts')]//input"));
                restart.sendKeys(" --now", Keys.ENTER);
                browser.seeText("restart trail-notes --now");
                // What is no longer asked is no longer answered, and stands in nobody's way.
                browser.click(By.xpath("//button[@role='radio'][.='page']"));
                browser.seeText("a link is switched to it");
                browser.click(By.xpath("//button[contains(., 'Register trail-notes')]"));
                browser.seeText("Where trail-notes runs");
                browser.click(By.xpath("//label[contains(., 'test-1')]"));
                browser.click(By.xpath("//button[.='Show the change']"));
                browser.seeText("trail-notes gets a place there, on test-1");
                WebElement load = browser.see(By.xpath("//button[.='Load it']"));
                Await.until("it may be loaded", load::isEnabled);
                load.click();
                browser.seeText("Nothing is built: the commit's files are the artifact.");
                browser.see(By.id("message")).sendKeys("Say how it is deployed");
                WebElement commit = browser.see(By.xpath("//button[contains(., 'Commit to main')]"));
                Await.until("the commit may be made", commit::isEnabled);
                commit.click();
                browser.seeText("it is in force");
            }
            Await.until("it is live", () -> park.live("trail-notes", "test").equals(Optional.of("0.1.1")));
            assertTrue(Files.readString(park.hostFolder("test-1").resolve("trail-notes/live/index.html"))
                    .contains("The ridge is open."));
        }
    }
}
