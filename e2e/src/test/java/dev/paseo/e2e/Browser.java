package dev.paseo.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.TimeoutException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.support.ui.ExpectedConditions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Debian's Chromium, headless, looking at the console. */
public final class Browser implements AutoCloseable {

    private final ChromeDriver driver;
    private final String address;

    public Browser(String address) {
        ChromeOptions options = new ChromeOptions();
        options.setBinary(System.getProperty("paseo.chromium", "/usr/bin/chromium"));
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
                "--disable-background-networking", "--disable-component-update", "--disable-sync", "--hide-scrollbars",
                "--window-size=1280,800");
        options.setCapability("goog:loggingPrefs", Map.of("browser", "ALL"));
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(
                        Path.of(System.getProperty("paseo.chromedriver", "/usr/bin/chromedriver")).toFile())
                .usingAnyFreePort().build();
        this.driver = new ChromeDriver(service, options);
        this.address = address;
        size(1280, 800);
    }

    /** Sets the size of the page itself, whatever the window has around it. */
    public void size(int width, int height) {
        driver.executeCdpCommand("Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", width < 500));
    }

    public void open(String path) {
        driver.get(address + path);
    }

    private WebDriverWait patiently() {
        return new WebDriverWait(driver, Await.LONGEST, Duration.ofMillis(50));
    }

    public WebElement see(By what) {
        try {
            return patiently().until(ExpectedConditions.visibilityOfElementLocated(what));
        } catch (TimeoutException late) {
            throw new AssertionError(what + " is not seen on " + path() + ", which says: "
                    + driver.findElement(By.tagName("body")).getText(), late);
        }
    }

    /** Clicks what is seen; again where the page drew it anew at that very moment. */
    public void click(By what) {
        patiently().ignoring(StaleElementReferenceException.class).until(any -> {
            WebElement seen = see(what);
            // What lies below the ground line is scrolled to, as a person would.
            driver.executeScript("arguments[0].scrollIntoView({block: 'nearest', inline: 'nearest'})", seen);
            seen.click();
            return true;
        });
    }

    /** The text of what is seen; again where the page drew it anew at that very moment. */
    public String text(By what) {
        return patiently().ignoring(StaleElementReferenceException.class).until(any -> see(what).getText());
    }

    public WebElement seeText(String text) {
        return see(By.xpath("//body//*[contains(normalize-space(.), \"" + text
                + "\")][not(*[contains(normalize-space(.), \"" + text + "\")])]"));
    }

    public void signIn(String name, String password) {
        open("/sign-in");
        see(By.id("name")).sendKeys(name);
        driver.findElement(By.id("password")).sendKeys(password);
        driver.findElement(By.cssSelector("button[type=submit]")).click();
        see(By.cssSelector(".groundline"));
    }

    public void dark(boolean dark) {
        driver.executeScript("localStorage.setItem('paseo-theme', arguments[0])", dark ? "dark" : "light");
        driver.navigate().refresh();
    }

    /** Types into whatever has the focus. */
    public void type(CharSequence... keys) {
        for (CharSequence key : keys) {
            driver.switchTo().activeElement().sendKeys(key);
        }
    }

    /** Goes on by the tabulator until the focus is on what has a name that begins so. */
    public void tabTo(String name) {
        for (int steps = 0; steps < 120; steps++) {
            type(Keys.TAB);
            String focused = String.valueOf(driver.executeScript("""
                    const seen = document.activeElement;
                    return seen.getAttribute('aria-label') ?? seen.labels?.[0]?.innerText ?? seen.innerText ?? '';"""));
            if (focused.strip().startsWith(name)) {
                return;
            }
        }
        throw new AssertionError("The tabulator does not reach " + name + " on " + path());
    }

    /** The longest time between two frames of the page, in milliseconds, in each of so many seconds. */
    public List<Long> longestFrames(int seconds) {
        driver.manage().timeouts().scriptTimeout(Duration.ofSeconds(seconds + 20L));
        List<?> found = (List<?>) Objects.requireNonNull(driver.executeAsyncScript("""
                const done = arguments[arguments.length - 1], longest = [];
                let last = performance.now(), end = last + 1000;
                longest.push(0);
                const frame = (now) => {
                  longest.push(Math.max(longest.pop(), now - last));
                  last = now;
                  if (now >= end) {
                    if (longest.length === arguments[0]) return done(longest);
                    longest.push(0);
                    end = now + 1000;
                  }
                  requestAnimationFrame(frame);
                };
                requestAnimationFrame(frame);""", seconds));
        return found.stream().map(length -> ((Number) length).longValue()).toList();
    }

    public String path() {
        return Objects.requireNonNull(driver.getCurrentUrl()).substring(address.length());
    }

    /** Runs this at the beginning of every page that is loaded from now on. */
    public void before(String script) {
        driver.executeCdpCommand("Page.addScriptToEvaluateOnNewDocument", Map.of("source", script));
    }

    /** What this function of the page's own gives. */
    public Object script(String body) {
        return driver.executeScript(body);
    }

    /** What the browser's console has said since it was last asked. */
    public List<String> said() {
        return driver.manage().logs().get(LogType.BROWSER).getAll().stream()
                .map(entry -> entry.getLevel() + " " + entry.getMessage()).toList();
    }

    public List<WebElement> all(By what) {
        return driver.findElements(what);
    }

    /** Changes the theme of the page that is open, as its own switch does, at once. */
    public void darken(boolean dark) {
        driver.executeScript("""
                document.documentElement.dataset.theme = arguments[0];
                document.getAnimations().filter(each => each instanceof CSSTransition).forEach(each => each.finish());
                """, dark ? "dark" : "light");
    }

    /** What axe finds wrong with the page: rule and place. */
    public List<String> axe(String script) {
        driver.executeScript(script);
        return axeRun("{resultTypes: ['violations']}");
    }

    /** What axe finds wrong with the colours of a page that it was asked about already. */
    public List<String> contrast() {
        return axeRun("{resultTypes: ['violations'], runOnly: ['color-contrast']}");
    }

    @SuppressWarnings("unchecked")
    private List<String> axeRun(String options) {
        return (List<String>) Objects.requireNonNull(driver.executeAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                axe.run(document, OPTIONS).then(result =>
                  done(result.violations.flatMap(rule => rule.nodes.map(node => rule.id + ': ' + node.html.slice(0, \
                160)))));""".replace("OPTIONS", options)));
    }

    public void shoot(Path file) throws IOException {
        Files.createDirectories(Objects.requireNonNull(file.getParent()));
        Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
    }

    @Override
    public void close() {
        driver.quit();
    }
}
