package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/** The audit trail read, taken away, and verified by strangers. */
class TrailTest {

    private static Park park;
    private static Path elsewhere;

    @TempDir
    Path folder;

    @BeforeAll
    static void aDay() throws Exception {
        elsewhere = Files.createTempDirectory("paseo-elsewhere").resolve("heads.jsonl");
        park = Park.open("--paseo.heads.every=1s", "--paseo.heads.file=" + elsewhere);
        park.component().push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        park.as("release-engineer").put("/api/v1/places/daylight-api/production/hold",
                Map.of("reason", "The turning times are wrong")).good();
        long id = park.promote("1.4.1", "production");
        park.rule("approver-1", id, true, "Good.").good();
        park.deploymentIs(id, "live");
        Await.until("all entries are numbered", () -> park.as("auditor").get("/api/v1/audit/verification").good()
                .path("notCovered").asLong() == 0);
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static List<String> asked(String query) {
        return park.as("auditor").get("/api/v1/audit?limit=500&" + query).good().path("entries").valueStream()
                .map(each -> each.path("entry")).map(entry -> entry.path("who").asString() + " "
                        + entry.path("what").asString() + " " + entry.path("subject").asString())
                .toList();
    }

    @Test
    void itIsReadByWhatIsAsked() {
        assertEquals(List.of("release-engineer held daylight-api"), asked("what=held&environment=production"));
        assertEquals(List.of("release-engineer held daylight-api"), asked("what=held&text=turning%20TIMES"));
        assertEquals(List.of(), asked("text=turning_times"), "an underscore is one");
        assertEquals(List.of(), asked("text=emergency"), "what a detail is called is not what it says");
        assertEquals(List.of(), asked("what=held&by=admin"));
        assertEquals(List.of(), asked("what=held&environment=test"));
        assertEquals(List.of(), asked("what=held&until=2020-01-01T00:00:00Z"));
        assertEquals(1, asked("what=held&since=2020-01-01T00:00:00Z&environment=production").size());
        assertTrue(asked("component=daylight-api&version=1.4.1&environment=production").stream()
                .allMatch(line -> line.endsWith("daylight-api 1.4.1")));
        long deployment = park.as("auditor").get("/api/v1/deployments?environment=production").good().path(0)
                .path("id").asLong();
        List<String> of = asked("deployment=" + deployment);
        assertTrue(of.stream().anyMatch(line -> line.startsWith("approver-1 ")) && of.size() >= 2, of.toString());
        assertEquals(400, park.as("auditor").get("/api/v1/audit?version=1.4.1").status());
        String list = park.paseo("auditor", "audit", "list", "--component", "daylight-api", "--what", "held", "--in",
                "production").out();
        assertTrue(list.contains("The turning times are wrong") && list.lines().count() == 2, list);
    }

    private Path exported() {
        Path file = folder.resolve("trail.jsonl");
        Park.Said said = park.paseo("auditor", "audit", "export", "--into", file.toString());
        assertEquals(0, said.code(), said.out());
        return file;
    }

    private Path with(List<String> lines) throws IOException {
        return Files.write(folder.resolve("changed.jsonl"), lines);
    }

    private static String verified(Path file, int code) {
        Park.Said said = park.paseo("auditor", "audit", "verify", file.toString());
        assertEquals(code, said.code(), said.out());
        return said.out();
    }

    @Test
    void whatIsTrailExportVerifiesWithoutAService() throws Exception {
        Path file = exported();
        List<String> lines = Files.readAllLines(file);
        long entries = lines.stream().filter(line -> line.startsWith("{\"entry\"")).count();
        assertTrue(verified(file, 0).startsWith("good: " + entries + " entries from position 0"));
        assertEquals("good: " + entries + " entries", Stranger.verifies(file));
        int held = 0;
        while (!lines.get(held).contains("The turning times are wrong")) {
            held++;
        }
        String position = lines.get(held).replaceAll(".*\"position\":([0-9]+)}", "$1");

        List<String> changed = new ArrayList<>(lines);
        changed.set(held, changed.get(held).replace("are wrong", "are wring"));
        assertTrue(verified(with(changed), 1).contains("entry " + position + " (line " + (held + 1) + ") was changed"));
        assertEquals("wrong at entry " + position + " (line " + (held + 1) + ")", Stranger.verifies(with(changed)));

        List<String> swapped = new ArrayList<>(lines);
        int first = 1;
        while (!lines.get(first).startsWith("{\"entry\"")) {
            first++;
        }
        Collections.swap(swapped, first, first + 1);
        assertTrue(verified(with(swapped), 1).contains("or two were swapped"));
        assertTrue(Stranger.verifies(with(swapped)).startsWith("wrong at entry 0"));
        List<String> cut = lines.subList(0, lines.size() - 1);
        assertTrue(verified(with(cut), 1).contains("it is cut short"));
        assertTrue(Stranger.verifies(with(cut)).startsWith("cut short"));
        List<String> out = new ArrayList<>(lines);
        out.remove(held);
        assertTrue(verified(with(out), 1).contains("one was left out"));
        assertTrue(Stranger.verifies(with(out)).startsWith("wrong at entry " + position));
    }

    @Test
    void aPartOfItGoesOnFromWhatStandsBefore() throws Exception {
        Path part = folder.resolve("part.jsonl");
        park.paseo("auditor", "audit", "export", "--from", "7", "--into", part.toString());
        assertTrue(verified(part, 0).contains("entries from position 7"));
        assertTrue(Stranger.verifies(part).startsWith("good: "));
        Park.Said none = park.paseo("auditor", "audit", "export", "--from", "999999", "--into",
                folder.resolve("none.jsonl").toString());
        assertTrue(none.code() != 0 && none.out().contains("should be a position from 0 to "), none.out());
        assertTrue(Files.notExists(folder.resolve("none.jsonl")) && Files.notExists(folder.resolve("none.jsonl.part")));
        assertEquals(403, park.as("developer").get("/api/v1/audit/export").status());
    }

    @Test
    void whatWasCutShortIsGoneOnWithAndSoIsWhatIsThere() throws Exception {
        Path file = exported();
        byte[] bytes = Files.readAllBytes(file);
        Files.delete(file);
        Files.write(folder.resolve("trail.jsonl.part"), Arrays.copyOf(bytes, bytes.length / 2));
        Park.Said said = park.paseo("auditor", "audit", "export", "--into", file.toString(), "--resume");
        assertEquals(0, said.code(), said.out());
        assertTrue(verified(file, 0).contains(" entries from position 0") && Files.notExists(
                folder.resolve("trail.jsonl.part")));
        long before = Files.readAllLines(file).stream().filter(line -> line.startsWith("{\"entry\"")).count();
        long size = park.as("auditor").get("/api/v1/audit/head").good().path("size").asLong();
        park.as("admin").put("/api/v1/environments/test/closure", Map.of("reason", "Hail")).good();
        Await.until("it is numbered", () -> park.as("auditor").get("/api/v1/audit/head").good().path("size")
                .asLong() > size);
        assertEquals(0, park.paseo("auditor", "audit", "export", "--into", file.toString(), "--resume").code());
        assertTrue(Files.readAllLines(file).stream().filter(line -> line.startsWith("{\"entry\"")).count() > before);
        assertTrue(Stranger.verifies(file).startsWith("good: "), Stranger.verifies(file));
        assertEquals(2, park.paseo("auditor", "audit", "export", "--into", file.toString(), "--resume", "--from", "3")
                .code());
        Files.writeString(folder.resolve("trail.jsonl.part"), "none of ours");
        assertEquals(0, park.paseo("auditor", "audit", "export", "--into", file.toString(), "--resume").code());
    }

    @Test
    void aHeadThatIsKeptElsewhereHoldsTheTrail() throws Exception {
        Path head = Files.writeString(folder.resolve("head.json"), park.paseo("auditor", "audit", "head").out());
        park.as("release-engineer").put("/api/v1/places/daylight-api/staging/hold", Map.of("reason", "Snow")).good();
        JsonNode kept = park.as("auditor").get("/api/v1/audit/head").good();
        Await.until("it has grown",
                () -> park.as("auditor").get("/api/v1/audit/head").good().path("size")
                        .asLong() > kept.path("size").asLong() - 1
                        && park.paseo("auditor", "audit", "verify", "--head", head.toString()).code() == 0);
        assertTrue(verified(exported(), 0).startsWith("good"));
        assertEquals(0, park.paseo("auditor", "audit", "verify", exported().toString(), "--head", head.toString())
                .code());
        Path other = Files.writeString(folder.resolve("other.json"),
                Files.readString(head).replaceFirst("\"root\":\"..", "\"root\":\"00"));
        Park.Said said = park.paseo("auditor", "audit", "verify", "--head", other.toString());
        assertTrue(said.code() == 1 && said.out().contains("is not signed by this key"), said.out());
        Files.writeString(other, Files.readString(other).strip() + "\n" + Files.readString(head));
        assertEquals(said.out(), park.paseo("auditor", "audit", "verify", "--head", other.toString()).out(),
                "each of them counts, not the last alone");
        assertEquals(400, park.as("auditor").get("/api/v1/audit/consistency?from=0").status());
    }

    @Test
    void theKeyIsRenewedAndWhoeverKeptTheOldOneStillVerifies() throws Exception {
        Path old = Files.writeString(folder.resolve("key.txt"), park.paseo("auditor", "audit", "key").out());
        Path head = Files.writeString(folder.resolve("head.json"), park.paseo("auditor", "audit", "head").out());
        assertEquals(4, park.paseo("developer", "audit", "renew-key", "--reason", "mine").code());
        Park.Said renewed = park.paseo("admin", "audit", "renew-key", "--reason", "As every year");
        assertTrue(renewed.code() == 0 && renewed.out().startsWith("New key "), renewed.out());
        Await.until("the new key has signed", () -> park.as("auditor")
                .get("/api/v1/audit?what=renewed+the+key+that+signs").good().path("entries").path(0).has("position"));
        Path fresh = Files.writeString(folder.resolve("fresh.txt"), park.paseo("auditor", "audit", "key").out());
        assertTrue(Files.readAllLines(fresh).size() > Files.readAllLines(old).size());
        Path newest = Files.writeString(folder.resolve("newest.txt"),
                Files.readAllLines(fresh).getLast().split(" ")[0]);
        Path file = exported();
        for (Path key : List.of(old, fresh, newest)) {
            Park.Said said = park.paseo("auditor", "audit", "verify", file.toString(), "--key", key.toString(),
                    "--head", head.toString());
            assertEquals(0, said.code(), said.out());
            assertEquals(0, park.paseo("auditor", "audit", "verify", "--head", head.toString(), "--key",
                    key.toString()).code());
        }
        assertTrue(Stranger.verifies(file).startsWith("good: "), Stranger.verifies(file));
        List<String> lines = Files.readAllLines(file);
        lines.removeIf(line -> line.startsWith("{\"renewal\""));
        assertTrue(verified(with(lines), 1).contains("is not signed by this key"));
        assertTrue(Stranger.verifies(with(lines)).startsWith("wrong at the head of "));
        assertTrue(park.paseo("auditor", "audit", "verify").out().startsWith("good"), "and the service itself");
        Path statement = Files.writeString(folder.resolve("statement.json"),
                park.paseo("auditor", "statement", "daylight-api", "1.4.1").out());
        String sha256 = park.as("auditor").get("/api/v1/versions/daylight-api/1.4.1").good().path("artifacts").path(0)
                .path("digest").asString();
        Park.Said by = park.paseo("auditor", "verify", sha256, "--statement", statement.toString(), "--key",
                fresh.toString());
        assertTrue(by.code() == 0 && by.out().contains("by a key that was replaced on "), by.out());
        assertEquals(0, park.paseo("auditor", "verify", sha256, "--key", old.toString()).code());
    }

    @Test
    void headsAreWrittenElsewhereAndHoldTheTrail() throws Exception {
        Await.until("the newest head is written", () -> park.as("auditor").get("/api/v1/audit/witnesses").good()
                .path("file").path("written").path("size").asLong(-1) == park.as("auditor")
                        .get("/api/v1/audit/head").good().path("size").asLong());
        Park.Said said = park.paseo("auditor", "audit", "verify", exported().toString(), "--head",
                elsewhere.toString());
        assertEquals(0, said.code(), said.out());
        assertEquals(0, park.paseo("auditor", "audit", "verify", "--head", elsewhere.toString()).code());
        String witnesses = park.paseo("auditor", "audit", "witnesses").out();
        assertTrue(witnesses.contains(elsewhere.toString()), witnesses);
    }

    /** The list goes on by itself, and holds only the rows near what is looked at. */
    private static void downToTheOldest(Browser browser) {
        browser.open("/audit");
        browser.see(By.xpath("//tr[@aria-rowindex='2']"));
        int all = park.as("auditor").get("/api/v1/audit?limit=500&signIns=false").good().path("entries")
                .size();
        assertTrue(all > 50, "there is more than one page: " + all);
        Await.until("the oldest entry is in the page", () -> {
            browser.script("window.scrollTo(0, document.body.scrollHeight)");
            return ((Number) browser.script("return Math.max(0, ...[...document.querySelectorAll("
                    + "'tbody tr[aria-rowindex]')].map(row => Number(row.getAttribute('aria-rowindex'))))"))
                    .intValue() > all;
        });
        assertTrue(browser.all(By.xpath("//tr[@aria-rowindex='2']")).isEmpty(), "the newest is far above");
    }

    @Test
    void anEntryIsOpenedWithItsProof() throws Exception {
        JsonNode held = park.as("auditor").get("/api/v1/audit?what=held&environment=production").good()
                .path("entries").path(0);
        String position = held.path("position").asString("");
        Park.Said shown = park.paseo("auditor", "audit", "show", position);
        assertTrue(shown.code() == 0 && shown.out().contains("The path leads from the leaf to the signed root."),
                shown.out());
        assertEquals(404, park.as("auditor").get("/api/v1/audit/entries/999999").status());
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("auditor", Park.PASSWORD);
            browser.open("/audit?what=held");
            browser.see(
                    By.xpath("//tr[contains(., 'release-engineer') and contains(., 'The turning times are wrong')]"));
            browser.click(By.xpath("//tr[contains(., 'The turning times')]//a[contains(., 'held daylight-api')]"));
            browser.see(By.xpath("//*[@role='dialog'][contains(., 'Entry " + position + "')]"
                    + "[contains(., 'The turning times are wrong')][contains(., 'root')]"));
            browser.click(By.xpath("//*[@role='dialog']//button[.='Close']"));
            browser.see(By.xpath("//a[normalize-space(.)='Export']"));
            downToTheOldest(browser);
        }
    }
}
