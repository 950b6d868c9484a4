package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/**
 * A version is requested into an environment from its own page, and the deployment withdrawn from its own, in a
 * browser.
 */
class PromoteTest {

    @Test
    void aVersionIsAskedForAndWithdrawnInTheConsole() throws Exception {
        try (Park park = Park.open()) {
            park.component().push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                browser.open("/versions/daylight-api/1.4.1");
                browser.click(By.xpath("//section[@aria-label='Request it']//button[.='Ask for production']"));
                browser.see(By.xpath("//*[@role='dialog']//li[contains(., 'deploy to north-hut')]"));
                String said = browser.text(By.cssSelector("[role=dialog]"));
                assertTrue(said.contains("Nothing is live in production yet."), said);
                assertTrue(said.contains("What the gate of production says now") && said.contains("approvers"), said);
                assertTrue(said.contains("People are asked before anything is done. It stops in production."), said);
                browser.see(By.cssSelector("[role=dialog] textarea")).sendKeys("Times agree.");
                browser.click(By.xpath("//*[@role='dialog']//button[.='Ask for production']"));
                browser.see(By.xpath("//h1[contains(., 'waits at production')]"));
                JsonNode asked = park.as("developer").get("/api/v1/history/daylight-api/production").good().path(0);
                assertEquals("release-engineer", asked.path("requestedBy").asString());
                browser.click(By.xpath("//button[.='Withdraw']"));
                browser.click(By.xpath("//*[@role='dialog']//button[.='Withdraw 1.4.1']"));
                browser.see(By.xpath("//*[contains(., 'withdrawn by release-engineer')]"));
                JsonNode ended = park.deployment(asked.path("id").asLong());
                assertEquals("withdrawn", ended.path("deployment").path("status").asString());
                browser.open("/deployments?component=daylight-api&status=withdrawn");
                browser.see(By.xpath("//table//tr[contains(., 'withdrawn') and contains(., 'release-engineer')]"));
                browser.click(By.xpath("//select[@aria-label='Which status']/option[.='rejected']"));
                browser.seeText("None is like that.");
                long again = park.promote("1.4.1", "production");
                park.as("release-engineer").post("/api/v1/deployments/" + again + "/cancellation", Map.of()).good();
                String followed = park.paseo("developer", "watch", "daylight-api", "1.4.1", "--in", "production").out();
                assertTrue(followed.startsWith("deployment " + again + " withdrawn"), followed);
                assertTrue(
                        ended.path("plan").valueStream().allMatch(part -> part.path("state").asString().equals("left")),
                        "nothing is ahead of what has ended");
            }
        }
    }
}
