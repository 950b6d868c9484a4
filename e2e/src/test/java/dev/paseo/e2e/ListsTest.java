package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** Lists over all components, views of them, what is followed, and the docs, in a browser. */
class ListsTest {

    private static By option(String list, String word) {
        return By.xpath("//select[@aria-label='" + list + "']/option[.='" + word + "']");
    }

    @Test
    void listsAreAskedKeptAndFollowed() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "main", Map.of("test.sh", "exit 1\n"));
            park.runEnds(2);
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                browser.open("/components?status=failed");
                browser.see(By.xpath("//*[@role='row'][contains(., 'daylight-api') and contains(., 'failed')]"));
                browser.open("/runs");
                browser.see(By.xpath("//tr[contains(., 'daylight-api#1') and contains(., '1.4.1')]"));
                browser.click(By.xpath("//th[@aria-sort='descending']/button[contains(., 'Began')]"));
                browser.seeText("all of them, the oldest first.");
                browser.see(By.xpath("//tbody/tr[td][1][contains(., 'daylight-api#1')]"));
                browser.click(By.xpath("//th[@aria-sort='ascending']/button[contains(., 'Began')]"));
                browser.see(By.xpath("//tbody/tr[td][1][contains(., 'daylight-api#2')]"));
                assertEquals(List.of(1L), park.as("auditor").get("/api/v1/runs?after=0&limit=1").good().path("runs")
                        .valueStream().map(run -> run.path("number").asLong()).toList());
                String oldest = park.paseo("auditor", "list", "events", "--oldest-first", "--limit", "1").out();
                assertTrue(oldest.contains("daylight-api") && !oldest.contains("daylight-api#2"), oldest);
                browser.click(option("Which status", "failed"));
                browser.seeText("those failed.");
                browser.see(By.xpath("//tr[contains(., 'daylight-api#2') and contains(., 'not sealed')]"));
                assertTrue(browser.all(By.xpath("//tr[contains(., 'daylight-api#1')]")).isEmpty());
                browser.click(By.xpath("//button[contains(., 'Views')]"));
                browser.see(By.xpath("//label[contains(., 'Keep this one as')]//input")).sendKeys("Broken");
                browser.click(By.xpath("//label[contains(., 'for everybody')]/input"));
                browser.click(By.xpath("//button[.='Keep it']"));
                browser.see(By.xpath("//a[.='Broken']"));
                assertEquals("/runs?status=failed",
                        park.as("developer").get("/api/v1/views").good().path(0).path("address").asString());
                browser.open("/versions?environment=staging");
                browser.see(By.xpath("//tr[contains(., '1.4.1') and contains(., 'staging')]"));
                browser.open("/events?kind=push");
                browser.see(By.xpath("//tr[contains(., 'daylight-api: push')]//a[contains(., 'daylight-api#2')]"));
                assertTrue(browser.all(By.xpath("//tr/td[2][contains(., 'live in staging')]")).isEmpty());
                browser.click(option("Which started", "started nothing"));
                browser.seeText("None is like that.");
                String events = park.paseo("auditor", "list", "events", "--kind", "push").out();
                assertTrue(
                        events.contains("daylight-api: push") && events.contains("started daylight-api#1"),
                        events);
                browser.open("/environments/production");
                browser.click(By.xpath("//button[.='Follow']"));
                browser.see(By.xpath("//button[.='Following'][@aria-pressed='true']"));
                assertEquals("production",
                        park.as("release-engineer").get("/api/v1/following").good().path(0).path("name").asString());
                park.paseo("developer", "follow", "environment", "production");
                park.paseo("auditor", "follow", "environment", "production");
                park.as("admin").put("/api/v1/accounts/auditor", Map.of("roles", List.of())).good();
                long id = park.promote("1.4.1", "production");
                park.rule("approver-1", id, true, "Good.").good();
                park.deploymentIs(id, "live");
                assertTrue(park.paseo("developer", "notices").out()
                        .contains("daylight-api 1.4.1 in production is live"));
                assertEquals("[]", park.as("auditor").get("/api/v1/notices").good().path("notices").toString(),
                        "whoever may not see it any more is not told");
                browser.open("/waiting");
                browser.see(By.xpath("//*[contains(@class, 'notices')]//a[contains(., 'in production is live')]"));
                browser.open("/runs");
                browser.click(By.xpath("//button[@aria-label='Help']"));
                browser.see(By.xpath("//aside[@aria-label='Help']//h1[contains(., 'How')]"));
                browser.see(By.xpath("//aside[@aria-label='Help']//input")).sendKeys("emergency review");
                browser.click(By.xpath("//aside[@aria-label='Help']//a[contains(@href, 'how-to/emergency')]"));
                browser.see(By.xpath("//article//h1[contains(., 'emergency')]"));
                assertTrue(browser.path().startsWith("/docs/how-to/emergency#"), browser.path());
            }
        }
    }
}
