package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Anything is found by how it is named, by the API, the client and, with the keyboard alone, in a browser. */
class FindTest {

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = Park.open();
        park.component().push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static List<String> found(String text) {
        return park.as("developer").get("/api/v1/found?text=" + text).good().valueStream()
                .map(each -> each.path("thing").asString() + " " + each.path("name").asString()).toList();
    }

    @Test
    void aThingIsFoundByEachOfItsNames() {
        assertTrue(found("light").contains("component daylight-api"));
        assertEquals(List.of("version daylight-api 1.4.1"), found("daylight-api%201.4"));
        assertEquals(List.of("run daylight-api #1"), found("daylight-api%231"));
        assertTrue(found("prod").contains("environment production"));
        String commit = park.run("daylight-api", 1).path("run").path("commit").asString();
        assertEquals(List.of("commit " + commit.substring(0, 8)), found(commit.substring(0, 12)));
        assertEquals(List.of(), found("developer"), "accounts are for administrators");
        assertTrue(park.as("admin").get("/api/v1/found?text=develop").good().path(0).path("name").asString()
                .equals("developer"));
        Client.Answer refused = park.as("developer").get("/api/v1/found?text=" + "x".repeat(201));
        assertEquals(400, refused.status());
        assertEquals("should have at most 200 characters", refused.detail());
        assertTrue(park.paseo("developer", "find", "daylight-api", "1.4").out().contains("daylight-api 1.4.1"));
        Park.Said nothing = park.paseo("developer", "find", "no-such-thing");
        assertEquals(1, nothing.code());
        assertTrue(nothing.out().contains("Nothing is named “no-such-thing”."), nothing.out());
    }

    /** Sign in, find a version, see what would be done, ask for it: without a pointing device. */
    @Test
    void aVersionIsFoundAndAskedForByKeyboardAlone() throws Exception {
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("release-engineer", Park.PASSWORD);
            browser.see(By.cssSelector("[role=row]"));
            browser.type(Keys.chord(Keys.CONTROL, "k"));
            browser.see(By.cssSelector("[role=combobox]"));
            browser.type("daylight-api 1.4.1");
            browser.see(By.xpath("//*[@role='option'][@aria-selected='true'][contains(., 'daylight-api 1.4.1')]"));
            browser.see(By.xpath("//*[@role='option'][contains(., 'Promote daylight-api 1.4.1 to production')]"));
            for (int times = 0; times < 20 && browser.all(By.xpath(
                    "//*[@role='option'][@aria-selected='true'][contains(., 'to production')]")).isEmpty(); times++) {
                browser.type(Keys.ARROW_DOWN);
            }
            browser.type(Keys.ENTER);
            browser.seeText("What the gate of production says now");
            for (int times = 0; times < 30 && browser.all(By.cssSelector("textarea:focus")).isEmpty(); times++) {
                browser.type(Keys.TAB);
            }
            browser.type("Found by keyboard", Keys.TAB, Keys.ENTER);
            browser.see(By.xpath("//h1[contains(., 'waits at production')]"));
            browser.type("?");
            browser.see(By.xpath("//*[@role='dialog'][contains(., 'find anything')]"));
        }
        assertEquals("release-engineer", park.as("developer").get("/api/v1/history/daylight-api/production").good()
                .path(0).path("requestedBy").asString());
    }
}
