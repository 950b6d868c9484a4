package dev.paseo.e2e;

import java.io.IOException;
import java.nio.file.Path;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/**
 * Takes the pictures of docs/screenshots from the running demo. Arguments: address, folder, password of approver-2,
 * deployment that waits, password of release-engineer.
 */
public final class Screenshots {

    private Screenshots() {}

    public static void main(String[] arguments) throws IOException {
        Path folder = Path.of(arguments[1]);
        String waiting = arguments[3];
        try (Browser browser = new Browser(arguments[0])) {
            browser.signIn("approver-2", arguments[2]);
            browser.dark(false);
            pages(browser, folder, waiting);
            browser.dark(true);
            shoot(browser, "/pace?since=24h", ".recharts-bar-rectangle", folder.resolve("pace.png"));
            browser.dark(false);
        }
        promoting(arguments[0], folder, arguments[4]);
    }

    /** What somebody sees who may promote. */
    private static void promoting(String address, Path folder, String password) throws IOException {
        try (Browser browser = new Browser(address)) {
            browser.signIn("release-engineer", password);
            shoot(browser, "/audit?environment=production", "main tbody tr", folder.resolve("audit.png"));
            shoot(browser, "/settings/values?component=daylight-api", "main tbody tr", folder.resolve("settings.png"));
            browser.open("/versions/daylight-api/1.4.8?promote=daylight-api:1.4.8:production");
            browser.see(By.cssSelector("[role=dialog] .criteria"));
            Await.until("it is compared with what is live", () -> browser
                    .all(By.xpath("//*[@role='dialog']//p[starts-with(., 'Comparing with')]")).isEmpty());
            browser.shoot(folder.resolve("promotion.png"));
            browser.open("/");
            browser.see(By.cssSelector(".map-row"));
            browser.type(Keys.chord(Keys.CONTROL, "k"));
            browser.see(By.cssSelector("[role=combobox]"));
            browser.type("daylight-api 1.4.8");
            browser.see(By.xpath("//*[@role='option'][contains(., 'to production')]"));
            browser.shoot(folder.resolve("palette.png"));
        }
    }

    private static void pages(Browser browser, Path folder, String waiting) throws IOException {
        shoot(browser, "/", ".map-row", folder.resolve("whereabouts.png"));
        shoot(browser, "/deployments/" + waiting, ".criteria", folder.resolve("deployment.png"));
        shoot(browser, "/runs/daylight-api/3?stage=unit-tests", ".log-line", folder.resolve("run.png"));
        shoot(browser, "/versions/daylight-api/1.4.1", ".walk-stop", folder.resolve("version.png"));
        shoot(browser, "/waiting", ".notices li", folder.resolve("waiting.png"));
        shoot(browser, "/environments/production", ".calendar li", folder.resolve("environment.png"));
        shoot(browser, "/components/daylight-api", ".events li", folder.resolve("component.png"));
        shoot(browser, "/?shown=dense", "[role=rowheader] a", folder.resolve("dense.png"));
        shoot(browser, "/history?since=1h&environment=production", "[role=group] a", folder.resolve("history.png"));
        browser.open("/versions/daylight-api/1.4.1");
        browser.see(By.xpath("//a[starts-with(@aria-label, 'Where daylight-api.jar')]")).click();
        browser.see(By.xpath("//td[contains(., 'live now')]"));
        browser.shoot(folder.resolve("origin.png"));
        shoot(browser, "/chain", ".followed", folder.resolve("chain.png"));
        shoot(browser, "/components/daylight-api/pipeline", ".stage", folder.resolve("pipeline.png"));
    }

    private static void shoot(Browser browser, String path, String awaited, Path file) throws IOException {
        browser.open(path);
        browser.see(By.cssSelector(awaited));
        browser.see(By.cssSelector(".groundline-live"));
        browser.shoot(file);
    }
}
