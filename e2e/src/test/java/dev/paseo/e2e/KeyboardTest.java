package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** From signing in to a hold by the keyboard alone: nothing in here clicks, and no address is typed but the first. */
class KeyboardTest {

    private static void signIn(Browser browser, String name) {
        browser.see(By.id("name"));
        browser.type(name, Keys.TAB, Park.PASSWORD, Keys.ENTER);
        browser.see(By.cssSelector(".groundline"));
    }

    private static void press(Browser browser, String name) {
        browser.tabTo(name);
        browser.type(Keys.ENTER);
    }

    private static void write(Browser browser, String field, String text) {
        browser.tabTo(field);
        browser.type(text);
    }

    private static void signOut(Browser browser) {
        press(browser, "Signed in as ");
        browser.see(By.xpath("//*[@role='menuitem'][contains(., 'Sign out')]"));
        browser.type(Keys.END, Keys.ENTER);
    }

    /** Goes where the palette says so, for these words. */
    private static void find(Browser browser, String words, String row) {
        browser.type(Keys.chord(Keys.CONTROL, "k"));
        browser.see(By.cssSelector("[role=dialog] input"));
        browser.type(words);
        browser.see(By.xpath("//*[@role='option'][contains(., '" + row + "')]"));
        By chosen = By.xpath("//*[@role='option'][@aria-selected='true'][contains(., '" + row + "')]");
        while (browser.all(chosen).isEmpty()) {
            browser.type(Keys.ARROW_DOWN);
        }
        browser.type(Keys.ENTER);
    }

    @Test
    void theWholeWalkOfAVersion() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            long before = park.promote("1.4.1", "production");
            park.rule("approver-1", before, true, "Good.").good();
            park.deploymentIs(before, "live");
            repository.push("developer", "main", Map.of("times", "newer"));
            park.liveIn("staging", "1.4.2");
            try (Browser browser = new Browser(park.address())) {
                browser.open("/sign-in");
                signIn(browser, "release-engineer");
                find(browser, "daylight-api 1.4.2", "1.4.2");
                browser.see(By.xpath("//h1[contains(., '1.4.2')]"));
                press(browser, "Ask for production");
                browser.see(By.xpath("//*[@role='dialog']//li[contains(., 'deploy to north-hut')]"));
                press(browser, "Ask for production");
                browser.see(By.xpath("//h1[contains(., 'waits at production')]"));
                signOut(browser);
                signIn(browser, "approver-1");
                browser.type("2");
                browser.see(By.linkText("Look and decide"));
                press(browser, "Look and decide");
                browser.see(By.id("comment"));
                write(browser, "Your comment", "Both boards agree.");
                press(browser, "Approve 1.4.2");
                browser.seeText("daylight-api 1.4.2 is live in production");
                signOut(browser);
                signIn(browser, "release-engineer");
                find(browser, "daylight-api", "daylight-api in production");
                browser.see(By.xpath("//button[.='Roll back to 1.4.1']"));
                press(browser, "Roll back to");
                browser.see(By.cssSelector("[role=dialog]"));
                write(browser, "Why", "The times are of yesterday.");
                press(browser, "Roll back to");
                Await.until("1.4.1 is live again",
                        () -> park.live("production").orElse("").equals("1.4.1"));
                find(browser, "daylight-api", "daylight-api in staging");
                browser.see(By.xpath("//button[.='Hold']"));
                press(browser, "Hold");
                browser.see(By.cssSelector("[role=dialog]"));
                write(browser, "Why", "The hut is full.");
                press(browser, "Hold it");
                browser.seeText("The hut is full.");
                assertEquals("1.4.1", park.live("production").orElseThrow());
            }
        }
    }
}
