package dev.paseo.e2e;

import java.io.IOException;
import java.nio.file.Path;
import org.openqa.selenium.By;

/**
 * Takes the pictures of docs/screenshots from the running demo. Arguments: address, folder, password of approver-2,
 * deployment that waits.
 */
public final class Screenshots {

    private Screenshots() {}

    public static void main(String[] arguments) throws IOException {
        Path folder = Path.of(arguments[1]);
        String waiting = arguments[3];
        try (Browser browser = new Browser(arguments[0])) {
            browser.open("/sign-in");
            browser.see(By.id("name"));
            browser.shoot(folder.resolve("sign-in.png"));
            browser.signIn("approver-2", arguments[2]);
            browser.dark(false);
            pages(browser, folder, waiting, "");
            browser.dark(true);
            pages(browser, folder, waiting, "-dark");
            browser.dark(false);
            browser.size(390, 844);
            shoot(browser, "/", ".map-row", folder.resolve("whereabouts-narrow.png"));
            shoot(browser, "/deployments/" + waiting, ".criteria", folder.resolve("deployment-narrow.png"));
        }
    }

    private static void pages(Browser browser, Path folder, String waiting, String suffix) throws IOException {
        shoot(browser, "/", ".map-row", folder.resolve("whereabouts" + suffix + ".png"));
        shoot(browser, "/deployments/" + waiting, ".criteria", folder.resolve("deployment" + suffix + ".png"));
        if (suffix.isEmpty()) {
            shoot(browser, "/runs/daylight-api/3?stage=unit-tests", ".log-line", folder.resolve("run.png"));
            shoot(browser, "/versions/daylight-api/1.4.1", ".walk-stop", folder.resolve("version.png"));
            shoot(browser, "/waiting", ".waits li", folder.resolve("waiting.png"));
            shoot(browser, "/environments/production", ".calendar li", folder.resolve("environment.png"));
            shoot(browser, "/runs/daylight-api/2", ".log-line", folder.resolve("run-failed.png"));
            shoot(browser, "/components", "a[href='/runs/daylight-api/6']", folder.resolve("components.png"));
            shoot(browser, "/components/daylight-api", ".events li", folder.resolve("component.png"));
            shoot(browser, "/places/path-board/production", ".place-history tbody tr", folder.resolve("place.png"));
            shoot(browser, "/chain", ".followed", folder.resolve("chain.png"));
            shoot(browser, "/components/daylight-api/pipeline", ".plan .stage", folder.resolve("pipeline.png"));
            shoot(browser, "/sets/evening", ".place-history tbody tr", folder.resolve("set.png"));
        }
    }

    private static void shoot(Browser browser, String path, String awaited, Path file) throws IOException {
        browser.open(path);
        browser.see(By.cssSelector(awaited));
        browser.see(By.cssSelector(".groundline-live"));
        browser.shoot(file);
    }
}
