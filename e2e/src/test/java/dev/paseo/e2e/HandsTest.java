package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/**
 * From signing in to a hold, once by the keyboard alone and once by the mouse; no address is typed but the first, and
 * nothing is asked of the API but to see what came of it.
 */
class HandsTest {

    /** How somebody moves about. */
    private interface Hand {
        /** Presses a button or a link that begins so. */
        void press(String name);

        /** Writes into a field. */
        void write(String field, String text);

        /** Goes where the palette says so, for these words. */
        void find(String words, String row);

        void waiting();

        void signIn(String name);

        void signOut();
    }

    private record Keyboard(Browser browser) implements Hand {

        @Override
        public void press(String name) {
            browser.tabTo(name);
            browser.type(Keys.ENTER);
        }

        @Override
        public void write(String field, String text) {
            browser.tabTo(field);
            browser.type(text);
        }

        @Override
        public void find(String words, String row) {
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

        @Override
        public void waiting() {
            browser.type("2");
        }

        @Override
        public void signIn(String name) {
            browser.see(By.id("name"));
            browser.type(name, Keys.TAB, Park.PASSWORD, Keys.ENTER);
            browser.see(By.cssSelector(".groundline"));
        }

        @Override
        public void signOut() {
            press("Signed in as ");
            browser.see(By.xpath("//*[@role='menuitem'][contains(., 'Sign out')]"));
            browser.type(Keys.END, Keys.ENTER);
        }
    }

    private record Mouse(Browser browser) implements Hand {

        private static final String OPEN = "//*[@role='dialog']";

        @Override
        public void press(String name) {
            String here = browser.all(By.xpath(OPEN)).isEmpty() ? "" : OPEN;
            browser.click(By.xpath(here + "//*[self::button or self::a][starts-with(normalize-space(.), '" + name
                    + "')]"));
        }

        @Override
        public void write(String field, String text) {
            By at = By.xpath("//label[starts-with(normalize-space(.), '" + field + "')]//textarea | //textarea[@id ="
                    + " //label[starts-with(normalize-space(.), '" + field + "')]/@for]");
            browser.click(at);
            browser.see(at).sendKeys(text);
        }

        @Override
        public void find(String words, String row) {
            browser.click(By.xpath("//button[starts-with(@aria-label, 'Find')]"));
            browser.see(By.cssSelector("[role=dialog] input")).sendKeys(words);
            browser.click(By.xpath("//*[@role='option'][contains(., '" + row + "')]"));
        }

        @Override
        public void waiting() {
            browser.click(By.xpath("//nav[@aria-label='Pages']//a[starts-with(normalize-space(.), 'Waiting')]"));
        }

        @Override
        public void signIn(String name) {
            browser.see(By.id("name")).sendKeys(name);
            browser.see(By.id("password")).sendKeys(Park.PASSWORD);
            browser.click(By.cssSelector("button[type=submit]"));
            browser.see(By.cssSelector(".groundline"));
        }

        @Override
        public void signOut() {
            browser.click(By.xpath("//button[starts-with(@aria-label, 'Signed in as ')]"));
            browser.click(By.xpath("//*[@role='menuitem'][contains(., 'Sign out')]"));
        }
    }

    @Test
    void theWholeWalkOfAVersionByTheKeyboardAlone() throws Exception {
        try (Park park = Park.open(); Browser browser = new Browser(park.address())) {
            walk(park, browser, new Keyboard(browser));
        }
    }

    @Test
    void theWholeWalkOfAVersionByTheMouse() throws Exception {
        try (Park park = Park.open(); Browser browser = new Browser(park.address())) {
            walk(park, browser, new Mouse(browser));
        }
    }

    private static void walk(Park park, Browser browser, Hand hand) throws Exception {
        Repository repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        long before = park.promote("1.4.1", "production");
        park.rule("approver-1", before, true, "Good.").good();
        park.deploymentIs(before, "live");
        repository.push("developer", "main", Map.of("times", "newer"));
        park.liveIn("staging", "1.4.2");
        browser.open("/sign-in");
        hand.signIn("release-engineer");
        hand.find("daylight-api 1.4.2", "1.4.2");
        browser.see(By.xpath("//h1[contains(., '1.4.2')]"));
        hand.press("Ask for production");
        browser.see(By.xpath("//*[@role='dialog']//li[contains(., 'deploy to north-hut')]"));
        hand.press("Ask for production");
        browser.see(By.xpath("//h1[contains(., 'waits at production')]"));
        hand.signOut();
        hand.signIn("approver-1");
        hand.waiting();
        browser.see(By.linkText("Look and decide"));
        hand.press("Look and decide");
        browser.see(By.id("comment"));
        hand.write("Your comment", "Both boards agree.");
        hand.press("Approve 1.4.2");
        browser.seeText("daylight-api 1.4.2 is live in production");
        hand.signOut();
        hand.signIn("release-engineer");
        hand.find("daylight-api", "daylight-api in production");
        browser.see(By.xpath("//button[.='Roll back to 1.4.1']"));
        hand.press("Roll back to");
        browser.see(By.cssSelector("[role=dialog]"));
        hand.write("Why", "The times are of yesterday.");
        hand.press("Roll back to");
        Await.until("1.4.1 is live again", () -> park.live("production").orElse("").equals("1.4.1"));
        hand.find("daylight-api", "daylight-api in staging");
        browser.see(By.xpath("//button[.='Hold']"));
        hand.press("Hold");
        browser.see(By.cssSelector("[role=dialog]"));
        hand.write("Why", "The hut is full.");
        hand.press("Hold it");
        browser.seeText("The hut is full.");
        assertEquals("1.4.1", park.live("production").orElseThrow());
    }
}
