package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/**
 * What an approver has to see stands on the first screen of 1280 × 800; the checklist and Waiting are worked in the
 * browser.
 */
class DecisionScreenTest {

    /** Without the line at the foot of the page. */
    private static final int SEEN = 768;

    @Test
    void everythingThatDecidesIsSeenWithoutScrolling() throws Exception {
        try (Park park = Park.open()) {
            park.account("tester", List.of("tester"), List.of("testers"));
            Repository repository = park.component();
            park.as("admin").put("/api/v1/environments", Map.of("text", Scenario.environments(park::hostAddress)
                    .replace("  staging:\n    follows: test\n",
                            "  staging:\n    follows: test\n    to-go-on: {checklist: {for: testers, items: [Board "
                                    + "shows the day's turning time, Old links still work]}}\n")
                    .replace("        hosts: {staging-1:",
                            "        url: http://127.0.0.1:7620\n        hosts: {staging-1:"),
                    "loosen", true)).good();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            try (Browser tester = new Browser(park.address())) {
                tester.signIn("tester", Park.PASSWORD);
                tester.open("/waiting");
                tester.click(By.linkText("Tick"));
                tester.click(By.cssSelector("[aria-label=\"Tick Board shows the day's turning time\"]"));
                tester.seeText("1 of 2 ticked");
                tester.click(By.cssSelector("[aria-label=\"Tick Old links still work\"]"));
                tester.seeText("It has passed: the walk continues");
            }
            long first = park.promote("1.4.1", "production");
            park.rule("approver-1", first, true, "Good.").good();
            park.deploymentIs(first, "live");
            repository.push("developer", "main", Map.of("times", "newer", "deploy/install.sh",
                    Scenario.files().get("deploy/install.sh") + "# careful\n"));
            park.liveIn("staging", "1.4.2");
            park.as("admin").put("/api/v1/places/daylight-api/production/variables",
                    Map.of("name", "LOG_LEVEL", "value", "debug")).good();
            long passage = park.as("tester").get("/api/v1/versions/daylight-api/1.4.2/passages").body().valueStream()
                    .filter(each -> each.path("environment").asString().equals("staging")).findFirst().orElseThrow()
                    .path("id").asLong();
            for (String item : List.of("Board shows the day's turning time", "Old links still work")) {
                park.as("tester").post("/api/v1/passages/" + passage + "/ticks", Map.of("item", item)).good();
            }
            long id = park.promote("1.4.2", "production");
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("approver-1", Park.PASSWORD);
                browser.open("/deployments/" + id);
                browser.see(By.id("comment"));
                List<String> outside = new ArrayList<>();
                Map.ofEntries(Map.entry("version", "//h1[contains(., '1.4.2')]"),
                        Map.entry("authors", "//h3[contains(., 'by developer')]"),
                        Map.entry("commits", "//h3[contains(., 'by developer')]/following::table[1]"),
                        Map.entry("artifacts", "//h3[.='Artifacts']/following::td[1]"),
                        Map.entry("evidence", "//h3[.='Evidence']"), Map.entry("variables", "//code[.='LOG_LEVEL']"),
                        Map.entry("files", "//code[contains(., 'install.sh')]"),
                        Map.entry("staging's address", "//a[contains(., 'Open staging')]"),
                        Map.entry("production's address", "//a[contains(., 'Open production')]"),
                        Map.entry("the walk", "//*[contains(@class, 'walk-stop')]"),
                        Map.entry("a criterion", "//*[@class='criteria']/li[1]"),
                        Map.entry("approve", "//button[contains(., 'Approve 1.4.2')]"),
                        Map.entry("reject", "//button[contains(., 'Reject')]"),
                        Map.entry("the comment", "//textarea[@id='comment']")).forEach((what, where) -> {
                            WebElement element = browser.see(By.xpath(where));
                            if (element.getRect().y + element.getRect().height > SEEN
                                    || element.getRect().x + element.getRect().width > 1280) {
                                outside.add(what + " ends at " + (element.getRect().y + element.getRect().height));
                            }
                        });
                assertEquals(List.of(), outside);
                assertTrue(browser.text(By.cssSelector(".deployment-columns")).contains("north-hut"),
                        "what will happen, host by host");
                browser.open("/waiting");
                browser.seeText("Look and decide");
                browser.open("/environments/production");
                browser.seeText(
                        "One of approvers approves, not an author or the requester, with a comment, within 2 d of "
                                + "the request.");
            }
        }
    }
}
