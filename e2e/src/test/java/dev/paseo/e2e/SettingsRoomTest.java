package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import tools.jackson.databind.JsonNode;

/** What an administrator sets without the client, in a browser: people, agents, values, receivers. */
class SettingsRoomTest {

    private static final By DIALOG = By.cssSelector("[role=dialog]");

    private static Park park;
    private static Browser browser;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        browser = new Browser(park.address());
        browser.signIn("admin", Files.readString(park.folder.resolve("data/admin-password")).strip());
    }

    @AfterAll
    static void close() {
        browser.close();
        park.close();
    }

    private static void button(String word) {
        browser.click(By.xpath("//main//button[.='" + word + "']"));
        browser.see(DIALOG);
    }

    private static void fill(String label, String text) {
        browser.see(By.xpath("//*[@role='dialog']//label[starts-with(normalize-space(.), '" + label
                + "')]//*[self::input or self::textarea]")).sendKeys(Keys.chord(Keys.CONTROL, "a"), text);
    }

    private static void act(String word) {
        browser.click(By.xpath("//*[@role='dialog']//button[.='" + word + "']"));
    }

    private static String once() {
        return browser.see(By.xpath("//*[@role='dialog']//pre")).getText();
    }

    @Test
    void aColleagueIsAddedSetsAPasswordByTheCodeAndIsDisabledAgain() throws Exception {
        browser.open("/settings/accounts");
        button("New account");
        fill("Name", "ada of the park");
        act("Add it");
        browser.see(By.xpath("//*[@role='dialog']//*[@role='alert'][string-length(.) > 5]"));
        fill("Name", "ada");
        fill("Roles", "approver");
        act("Add it");
        String code = once();
        act("Done");
        browser.click(By.xpath("//main//a[.='ada']"));
        browser.seeText("approver");
        try (Browser hers = new Browser(park.address())) {
            hers.open("/sign-in");
            hers.click(By.xpath("//button[.='I have a code']"));
            hers.see(By.xpath("//label[starts-with(., 'Code')]//input")).sendKeys("not-" + code);
            hers.see(By.xpath("//label[starts-with(., 'New password')]//input")).sendKeys("high-above-the-path");
            hers.click(By.xpath("//button[.='Set it']"));
            hers.see(By.xpath("//*[@role='alert'][string-length(.) > 5]"));
            hers.see(By.xpath("//label[starts-with(., 'Code')]//input")).sendKeys(Keys.chord(Keys.CONTROL, "a"), code);
            hers.click(By.xpath("//button[.='Set it']"));
            hers.see(By.xpath("//h1[.='Sign in to Paseo']"));
            hers.signIn("ada", "high-above-the-path");
            hers.see(By.xpath("//*[@aria-label='Signed in as ada']"));
        }
        button("Disable");
        act("Disable it");
        browser.seeText("Say why: it is kept in the audit trail.");
        fill("Why", "She left the park");
        act("Disable it");
        browser.seeText("She left the park");
    }

    @Test
    void anAgentIsEnrolledByLinesAndDrained() throws Exception {
        browser.open("/settings/agents");
        button("Enrol an agent");
        fill("Name", "lodge");
        fill("Offers", "jdk25, chromium");
        act("Give me the lines");
        assertTrue(once().contains("paseo-agent"), once());
        act("Done");
        park.startAgent("builder");
        browser.open("/settings/agents");
        browser.click(By.xpath("//tr[.//b='builder']//button[.='Drain']"));
        act("Drain it");
        browser.see(By.xpath("//tr[.//b='builder'][contains(., 'drains')]"));
        browser.click(By.xpath("//tr[.//b='builder']//button[.='Take work again']"));
        act("Take work again");
        browser.see(By.xpath("//tr[.//b='builder'][contains(., 'present')]"));
    }

    @Test
    void variablesAndSecretsAreSetAndTheirRevisionsSayWhatChanged() throws Exception {
        park.bring("lantern", Map.of());
        park.as("admin").put("/api/v1/environments", Map.of("text",
                "environments: {test: {components: {lantern: {hosts: {test-1: {}}}}}}\n", "loosen", true)).good();
        browser.open("/settings/values?component=lantern");
        button("Set a variable");
        fill("Name", "LOG_LEVEL");
        fill("Value", "warn");
        act("Set it");
        browser.see(By.xpath("//tr[starts-with(., 'LOG_LEVEL')]//code[.='warn']"));
        browser.click(By.xpath("//summary[contains(., 'revision')]"));
        browser.seeText("LOG_LEVEL: nothing → warn");
        browser.open("/settings/components/lantern");
        button("Give a secret");
        fill("Secret", "LAMP_KEY");
        act("Give it");
        browser.see(By.xpath("//main//code[.='LAMP_KEY']"));
        browser.open("/settings/values?component=lantern");
        browser.see(By.xpath("//tr[starts-with(., 'LAMP_KEY')][contains(., 'no value')]"));
        button("Set a secret");
        fill("Name", "LAMP_KEY");
        fill("Value", "short");
        act("Set it");
        browser.seeText("a shorter one could not be masked in logs");
        fill("Value", "bright-and-long");
        act("Set it");
        browser.see(By.xpath("//tr[starts-with(., 'LAMP_KEY')][contains(., 'revision 1')]"));
        JsonNode kept = park.as("admin").get("/api/v1/secrets").good();
        assertEquals("lantern", kept.path(0).path("component").asString());
    }

    /** Nobody is offered what they may not do. */
    @Test
    void whoeverMayNotSeesWhatIsSetAndNoButton() throws Exception {
        try (Browser theirs = new Browser(park.address())) {
            theirs.signIn("developer", Park.PASSWORD);
            for (String page : new String[]{"agents", "hosts", "environments", "service"}) {
                theirs.open("/settings/" + page);
                theirs.see(By.cssSelector("nav[aria-label=Settings] [aria-current=page]"));
                String offered = theirs.all(By.xpath("//main//section//button")).stream()
                        .map(each -> each.getText()).collect(Collectors.joining(", "));
                assertEquals("", offered, page);
            }
            assertEquals(List.of(),
                    theirs.all(By.xpath("//nav[@aria-label='Settings']//a[.='Accounts' or .='Groups' or "
                            + ".='Receivers of events']")),
                    "what shows them nothing is not offered");
        }
    }
}
