package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** The console in a real browser: sign in, see what waits, approve it, see it live without loading the page again. */
class ConsoleTest {

    @Test
    void aDecisionFromSignInToLive() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            park.bring("daylight-check", Map.of()).push("developer", "main", Map.of("paseo.yaml",
                    StartingTest.pipeline("daylight-check", "- live: {component: daylight-api, in: staging}")));
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            long id = park.promote("1.4.1", "production");
            try (Browser browser = new Browser(park.address())) {
                refusedSignIn(browser);
                browser.signIn("approver-1", Park.PASSWORD);
                browser.seeText("waits for you");
                browser.click(By.linkText("Decide"));
                browser.see(By.cssSelector("h1"));
                assertEquals("/deployments/" + id, browser.path());
                browser.click(By.cssSelector(".decide .btn.yes"));
                browser.seeText("production wants a comment with every decision.");
                browser.see(By.id("comment")).sendKeys("Both boards agree.");
                browser.click(By.cssSelector(".decide .btn.yes"));
                browser.seeText("daylight-api 1.4.1 is live in production");
                browser.seeText("“Both boards agree.”");
                assertEquals("version 1.4.1 ok", park.installed("valley-house"));
                live(browser, repository);
            }
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("admin", Files.readString(park.folder.resolve("data/admin-password")).strip());
                axe(browser, id);
            }
        }
    }

    private static void refusedSignIn(Browser browser) {
        browser.open("/deployments/1");
        browser.see(By.id("name")).sendKeys("approver-1");
        browser.see(By.id("password")).sendKeys("guess");
        browser.click(By.cssSelector("button[type=submit]"));
        browser.seeText("The name or the password is wrong");
        assertEquals("approver-1", browser.see(By.id("name")).getDomProperty("value"), "what was typed is still there");
    }

    /** A push shows on the page that is open. */
    private static void live(Browser browser, Repository repository) throws Exception {
        browser.open("/");
        browser.see(By.cssSelector(".map-row"));
        repository.push("developer", "main", Map.of("README", "more"));
        browser.seeText("1 version behind");
        assertTrue(browser.all(By.cssSelector(".loz")).stream().anyMatch(each -> each.getText().contains("1.4.2")));
    }

    private static void axe(Browser browser, long id) throws Exception {
        String script = Files.readString(TestDatabase.ROOT.resolve("console/node_modules/axe-core/axe.min.js"));
        List<String> found = new ArrayList<>();
        browser.said();
        browser.open("/");
        browser.dark(false);
        Map<String, String> pages = new LinkedHashMap<>(
                Map.of("/chain", ".followed", "/components/daylight-check", ".events li",
                        "/places/daylight-api/test", ".place-hosts tbody tr"));
        pages.putAll(Map.of("/components/daylight-api", "main tbody tr", "/components/daylight-api/pipeline",
                ".stage", "/bring-in", "#repository",
                "/runs/daylight-api/1?part=tests", ".empty", "/runs/daylight-api/1?part=compare", "main label select",
                "/", ".map-row", "/components", "[role=rowheader] a", "/deployments/" + id, ".hosts li",
                "/runs/daylight-api/1", ".log-line", "/versions/daylight-api/1.4.1", ".walk-stop"));
        pages.putAll(Map.of("/sets", ".empty", "/environments-file?environment=production", "[role=status] h2",
                "/environments-file?copy=production", ".bring-in input", "/components/daylight-api/address",
                "fieldset input"));
        pages.putAll(Map.of("/waiting", "aside h2", "/environments/production", ".calendar li", "/passages/1",
                ".title-line"));
        pages.putAll(Map.of("/settings/yours", "main .sheet", "/settings/agents", "main tbody tr",
                "/settings/hosts", "main tbody tr", "/settings/environments", "main .sheet span",
                "/settings/values?component=daylight-api", "main tbody tr",
                "/settings/components/daylight-api", "main .sheet code", "/settings/service", "main .sheet",
                "/deployments", "main tbody tr", "/?shown=dense", "[role=rowheader]",
                "/versions/daylight-api/1.4.1?promote=daylight-api:1.4.1:test", "[role=dialog] .criteria, "
                        + "[role=dialog] h3"));
        pages.putAll(Map.of("/runs", "main tbody tr", "/versions?environment=test", "main tbody tr", "/events",
                "main tbody tr",
                "/docs/how-to/gate", "article h1",
                "/docs?text=emergency", "main li a"));
        pages.putAll(
                Map.of("/audit", "main h1", "/history", "main h1", "/pace", "main h1", "/pace/shifts", "main .empty",
                        "/pace/shifts?component=daylight-api&environment=test", "main .sheet"));
        pages.putAll(Map.of("/settings/retired", "main h1", "/settings/components", "main tbody tr", "/origins",
                "main h1", "/packages", "main h1", "/settings/previews", "main h1"));
        for (Map.Entry<String, String> page : pages.entrySet()) {
            browser.open(page.getKey());
            browser.see(By.cssSelector(page.getValue()));
            browser.see(By.cssSelector(".groundline-live"));
            browser.axe(script).forEach(problem -> found.add(page.getKey() + " light " + problem));
            // The same page in the dark: nothing but its colours differs.
            browser.darken(true);
            browser.contrast().forEach(problem -> found.add(page.getKey() + " dark " + problem));
            browser.darken(false);
            browser.size(390, 800);
            if (!Boolean.TRUE.equals(browser.script("return document.documentElement.scrollWidth <= innerWidth"))) {
                found.add(page.getKey() + " is wider than a phone");
            }
            browser.size(1280, 800);
            browser.said().forEach(line -> found.add(page.getKey() + " says " + line));
        }
        browser.open("/sign-in");
        browser.see(By.id("name"));
        browser.axe(script).forEach(problem -> found.add("/sign-in " + problem));
        assertEquals(List.of(), found);
    }
}
