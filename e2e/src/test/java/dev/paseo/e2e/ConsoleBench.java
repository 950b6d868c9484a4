package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** The built console in Chromium, with the components of a hundred teams. */
final class ConsoleBench {

    private static final int LOADS = 12;
    private static final int EVENTS = 15;

    private final Figures figures;

    ConsoleBench(Figures figures) {
        this.figures = figures;
    }

    void measure() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            new Crowd(1000, 12, 96_000).into(park);
            park.database.as("insert into component_label (component_id, name, value) select seq, 'team', "
                    + "concat('team-', seq % 100) from seq_1_to_1000");
            try (Browser browser = new Browser(park.address())) {
                browser.signIn("release-engineer", Park.PASSWORD);
                loads(browser);
                scrolls(browser);
                types(browser);
                hears(browser, park);
            }
        }
    }

    private static double asked(Browser browser, String script) {
        return ((Number) browser.script(script)).doubleValue();
    }

    private void loads(Browser browser) {
        List<Double> first = new ArrayList<>();
        List<Double> whole = new ArrayList<>();
        browser.before("""
                new MutationObserver(() => {
                  const seen = document.querySelectorAll('.map-row, [role=rowheader]').length;
                  if (seen && !window.firstSeen) requestAnimationFrame(() => window.firstSeen ??= performance.now());
                  if (document.body?.innerText.includes('hut-1000') && !window.allSeen)
                    window.allSeen = performance.now();
                }).observe(document, {childList: true, subtree: true});""");
        for (int at = -2; at < LOADS; at++) {
            browser.open("/?shown=dense");
            Await.until("the first rows are seen", () -> browser.script("return window.firstSeen ?? null") != null);
            if (at >= 0) {
                first.add(asked(browser, "return window.firstSeen"));
            }
            Await.until("all are there", () -> "1001".equals(browser.script(
                    "return document.querySelector('[role=table]')?.getAttribute('aria-rowcount') ?? ''")));
            if (at >= 0) {
                whole.add(asked(browser, "return performance.now()"));
            }
        }
        double script = asked(browser, """
                return performance.getEntriesByType('resource').filter(each => each.name.endsWith('.js'))
                  .reduce((sum, each) => sum + each.encodedBodySize, 0) / 1000""");
        figures.row("console: whereabouts of 1,000 components × 12 environments, first rows in Chromium",
                number("p50 %.0f ms, p99 %.0f ms; all rows there after p50 %.0f ms", percentile(first, 0.5),
                        percentile(first, 0.99), percentile(whole, 0.5)),
                "< 1,000 ms", new Figures.Limit(percentile(first, 0.99), 1000, false, "one page of rows, then drawn"),
                "from the beginning of loading to the frame after the first row; 96,000 deployments, loopback, "
                        + LOADS + " loads");
        figures.row("console: script of the first page, compressed", number("%.0f kB", script), "≤ 200 kB",
                new Figures.Limit(script, 200, false, "each page loads its own part"),
                "all scripts that whereabouts loads");
    }

    private void scrolls(Browser browser) {
        browser.script("""
                const table = document.querySelector('[role=table]');
                let steps = 0;
                const scroll = () => { table.scrollTop += 67; if (steps++ < 500) requestAnimationFrame(scroll); };
                requestAnimationFrame(scroll);
                return 0""");
        List<Long> frames = browser.longestFrames(5);
        double longest = frames.stream().mapToLong(Long::longValue).max().orElse(0);
        figures.row("console: scrolling dense whereabouts, the longest frame of each second", frames + " ms",
                "no frame > 50 ms", new Figures.Limit(longest, 50, false, "rows are drawn as they come into sight"),
                "67 px a frame, 5 s");
    }

    /** From the key to the frame that shows what it did, as the browser itself measures it (Event Timing). */
    private static List<Double> keys(Browser browser, String text) {
        browser.script("""
                window.keys = [];
                new PerformanceObserver(list => window.keys.push(...list.getEntries()
                  .filter(each => each.name === 'keydown').map(each => each.duration)))
                  .observe({type: 'event', durationThreshold: 16});
                return 0""");
        for (char letter : text.toCharArray()) {
            browser.type(String.valueOf(letter));
        }
        Await.until("the page has come to rest", () -> Boolean.TRUE.equals(browser.script("""
                const before = window.counted; window.counted = window.keys.length;
                return before === window.counted""")));
        List<?> took = (List<?>) browser.script("return window.keys");
        return took.isEmpty() ? List.of(16.0) : took.stream().map(each -> ((Number) each).doubleValue()).toList();
    }

    private void types(Browser browser) {
        browser.see(By.cssSelector("input[type=search]")).click();
        List<Double> filter = keys(browser, "team-77");
        browser.see(By.xpath("//*[@role='rowheader'][contains(., 'hut-77')]"));
        browser.open("/?shown=dense");
        browser.see(By.cssSelector("[role=rowheader]"));
        browser.type(Keys.chord(Keys.CONTROL, "k"));
        browser.see(By.cssSelector("[role=dialog] input"));
        // The first question to a service that has just started is not what somebody waits for all day.
        browser.type("hut-90");
        browser.see(By.xpath("//*[@id='palette-rows']//*[contains(., 'hut-90')]"));
        browser.type(Keys.chord(Keys.CONTROL, "a") + Keys.BACK_SPACE);
        browser.script("""
                window.foundAt = []; window.typedAt = 0;
                document.querySelector('[role=dialog] input').addEventListener('input',
                  () => window.typedAt = performance.now(), true);
                new MutationObserver(() => requestAnimationFrame(() => {
                  if (window.typedAt) window.foundAt.push(performance.now() - window.typedAt);
                  window.typedAt = 0;
                })).observe(document.querySelector('#palette-rows'), {childList: true, subtree: true});
                return 0""");
        List<Double> found = new ArrayList<>();
        for (char letter : "hut-77 1.".toCharArray()) {
            browser.type(String.valueOf(letter));
            Await.until("it was looked for", () -> Boolean.TRUE.equals(browser.script("""
                    const quiet = window.foundAt.length === window.before; window.before = window.foundAt.length;
                    return quiet""")));
        }
        ((List<?>) browser.script("return window.foundAt")).forEach(each -> found.add(((Number) each).doubleValue()));
        browser.type(Keys.ESCAPE);
        figures.row("console: a letter in the filter of whereabouts",
                number("p50 %.0f ms, at most %.0f ms", percentile(filter, 0.5), percentile(filter, 1)), "< 100 ms",
                new Figures.Limit(percentile(filter, 1), 100, false, "1,000 rows are matched and drawn"),
                "from the key to the frame that shows it (Event Timing); letters below 16 ms are left out");
        figures.row("console: a letter in the palette",
                number("p50 %.0f ms, at most %.0f ms", percentile(found, 0.5), percentile(found, 1)), "< 100 ms",
                new Figures.Limit(percentile(found, 1), 100, false, "one question to the service"),
                "from the letter to the frame with the rows that it changes, the service's answer in it; "
                        + "after one word that is not counted");
    }

    private void hears(Browser browser, Park park) {
        browser.open("/?shown=dense&component=hut-7");
        browser.see(By.xpath("//*[@role='rowheader'][contains(., 'hut-7')]"));
        Await.until("all are there", () -> browser.script("return document.querySelector('[role=table]')") != null);
        List<Double> seen = new ArrayList<>();
        for (int at = 0; at < EVENTS; at++) {
            String reason = "Snow on the path " + at;
            browser.script("""
                    window.heardAt = 0;
                    new MutationObserver((_, own) => requestAnimationFrame(() => {
                      window.heardAt ||= Date.now(); own.disconnect();
                    })).observe(document.querySelector('[role=table]'),
                      {childList: true, subtree: true, characterData: true, attributes: true});
                    return 0""");
            if (at % 2 == 0) {
                park.as("release-engineer").put("/api/v1/places/hut-7/env-1/hold", Map.of("reason", reason)).good();
            } else {
                park.as("release-engineer").delete("/api/v1/places/hut-7/env-1/hold?reason=melted");
            }
            long done = System.currentTimeMillis();
            Await.until("it is seen", () -> ((Number) browser.script("return window.heardAt")).longValue() > 0);
            seen.add((double) (asked(browser, "return window.heardAt") - done));
        }
        figures.row("console: an event reaches the pixels",
                number("p50 %.0f ms, p99 %.0f ms", percentile(seen, 0.5), percentile(seen, 0.99)), "< 300 ms",
                new Figures.Limit(percentile(seen, 0.99), 300, false, "an event, one look at whereabouts, drawn"),
                "from the answer of a hold to the frame that shows it on whereabouts of 1,000 components");
    }
}
