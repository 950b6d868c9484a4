package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/** Who may not do something asks who may: in the console, in the client, and what comes of it. */
class AskingTest {

    private static final By ASK = By.xpath("//button[.='Ask somebody to promote it into production']");

    @Test
    void whoMayNotAsksAndIsToldWhatCameOfIt() throws Exception {
        try (Park park = Park.open()) {
            park.component().push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("developer", Park.PASSWORD);
                browser.open("/versions/daylight-api/1.4.1");
                browser.click(ASK);
                assertTrue(browser.text(By.cssSelector("[role=dialog]"))
                        .contains("You may not do it yourself; admin, release-engineer may."));
                browser.see(By.cssSelector("[role=dialog] textarea")).sendKeys("The huts wait for it.");
                browser.click(By.xpath("//*[@role='dialog']//button[.='Ask them']"));
                browser.seeText("You asked admin, release-engineer to promote daylight-api 1.4.1 into production");
                assertEquals(0, park.as("approver-1").get("/api/v1/waiting").good().path("asks").size(),
                        "who may not promote it either is not asked");
                assertEquals(1, park.as("release-engineer").get("/api/v1/waiting/count").good().path("count").asInt());
                assertTrue(park.paseo("release-engineer", "waiting").out().contains("asked by developer"));
                assertTrue(park.paseo("release-engineer", "notices").out()
                        .contains("developer asks you to promote daylight-api 1.4.1 into production"));

            }
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                browser.open("/waiting");
                browser.see(By.xpath("//li[contains(., 'developer asks you to') and contains(., 'The huts wait')]"));
                browser.click(By.xpath("//button[.='Promote 1.4.1']"));
                browser.click(By.xpath("//*[@role='dialog']//button[.='Ask for production']"));
                browser.see(By.xpath("//h1[contains(., 'waits at production')]"));
                Await.until("it is done", () -> asked(park).path("outcome").asString("").equals("done"));
                assertEquals("release-engineer", asked(park).path("answeredBy").asString());
                assertEquals(0, park.as("release-engineer").get("/api/v1/waiting/count").good().path("count").asInt());
                String told = park.paseo("developer", "notices").out();
                assertTrue(told.contains("You asked to promote daylight-api 1.4.1 into production"), told);
                assertTrue(!park.paseo("release-engineer", "notices").out().contains("asks you"),
                        "what is done asks nobody any more");
            }
            String asks = park.paseo("developer", "ask", "for", "hold", "daylight-api", "--in", "staging", "--reason",
                    "The times are wrong").out();
            assertEquals("Ask 2 waits for one of admin, release-engineer to hold daylight-api in staging.\n", asks);
            park.paseo("release-engineer", "ask", "decline", "2", "--reason", "They are right");
            String list = park.paseo("developer", "ask", "list").out();
            assertTrue(list.contains("is declined") && list.contains("They are right"), list);
            park.paseo("developer", "ask", "for", "hold", "daylight-api", "--in", "staging", "--reason", "Look again");
            assertEquals("Ask 3 is dropped.\n", park.paseo("developer", "ask", "drop", "3").out());
            assertEquals(0, park.as("release-engineer").get("/api/v1/waiting").good().path("asks").size());
            JsonNode trail = park.as("admin").get("/api/v1/audit?limit=50").good().path("entries");
            assertEquals(2,
                    trail.valueStream()
                            .filter(entry -> entry.path("entry").path("what").asString().equals("asked to hold"))
                            .count());
            park.as("admin").put("/api/v1/accounts/developer", Map.of("roles", List.of())).good();
            assertEquals(403, park.as("developer").post("/api/v1/asks", Map.of("act", "hold", "component",
                    "daylight-api", "environment", "staging", "words", "why")).status(),
                    "who sees nothing asks nothing");
        }
    }

    private static JsonNode asked(Park park) {
        return park.as("developer").get("/api/v1/asks").good().path(0);
    }
}
