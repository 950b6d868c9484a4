package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/** What happened, over time, and what was live at other moments. */
class LookingBackTest {

    private static Park park;

    @TempDir
    Path folder;

    private static Instant before;
    private static long back;

    @BeforeAll
    static void aDay() throws Exception {
        park = Park.open();
        Repository repository = park.component();
        repository.push("developer", "main", files("3.1"));
        park.liveIn("staging", "1.4.1");
        before = Instant.now();
        Map<String, String> next = files("3.2");
        next.put("NEWS", "the second");
        repository.push("developer", "main", next);
        park.liveIn("staging", "1.4.2");
        back = park.as("release-engineer").post("/api/v1/places/daylight-api/staging/rollback",
                Map.of("reason", "The times are an hour off")).good().path("id").asLong();
        park.deploymentIs(back, "live");
        park.as("release-engineer").put("/api/v1/places/daylight-api/staging/hold", Map.of("reason", "Snow")).good();
        park.as("release-engineer").delete("/api/v1/places/daylight-api/staging/hold?reason=Thaw").good();
        long rejected = park.promote("1.4.2", "production");
        park.rule("approver-1", rejected, false, "Not on the day of the race.").good();
        park.deploymentIs(rejected, "rejected");
        park.as("admin").put("/api/v1/environments/production/closure", Map.of("reason", "Race")).good();
    }

    /** With a list of what it is made of, with this version of one part. */
    private static Map<String, String> files(String horizon) {
        Map<String, String> files = Scenario.files();
        files.computeIfPresent("paseo.yaml", (name, text) -> text.replace("    keep: {app: out/app.txt}\n",
                "    keep: {app: out/app.txt}\n    reports: {parts: parts.json}\n"));
        files.put("parts.json", "{\"bomFormat\": \"CycloneDX\", \"specVersion\": \"1.6\", \"components\": [{\"name\": "
                + "\"horizon\", \"purl\": \"pkg:maven/park.example/horizon@" + horizon + "\", \"version\": \"" + horizon
                + "\"}, {\"name\": \"huts\", \"version\": \"1\", \"licenses\": [{\"license\": {\"id\": \"MIT\"}}]}]}");
        return files;
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static JsonNode get(String path) {
        return park.as("auditor").get("/api/v1/history" + path).good();
    }

    private static List<String> told(String query) {
        return get("?limit=200&" + query).path("happened").valueStream().map(each -> each.path("environment").asString()
                + " " + each.path("version").asString("") + " " + each.path("what").asString() + " "
                + each.path("status").asString("")).map(String::strip).toList();
    }

    @Test
    void otherTriggersAreHeldAgainstWhatHappened() throws Exception {
        String text = park.as("developer").get("/api/v1/components/daylight-api/pipeline").good().path("text")
                .asString();
        assertTrue(text.contains("- push: [main"), text);
        String other = text.replace("- push: [main", "- push: [elsewhere");
        JsonNode tried = park.as("developer").post("/api/v1/components/daylight-api/pipeline/dry-run",
                Map.of("text", other, "days", 1)).good();
        assertTrue(tried.path("now").asInt() > 0 && tried.path("then").asInt() < tried.path("now").asInt(),
                tried.toString());
        assertEquals("starts-nothing", tried.path("differing").path(0).path("then").asString());
        Path file = Files.writeString(folder.resolve("other.yaml"), other);
        String said = park.paseo("developer", "check", file.toString(), "--dry-run").out();
        assertTrue(said.contains("would start nothing any more: push ") && said.contains("the push was to main"), said);
    }

    @Test
    void stagesAreAddedUpAndWhatMovedIsLookedFor() {
        JsonNode stages = park.as("auditor").get("/api/v1/pace/stages?component=daylight-api&order=slowest").good()
                .path("stages");
        assertTrue(stages.size() >= 1 && stages.path(0).path("runs").asInt() >= 1, stages.toString());
        String stage = stages.path(0).path("stage").asString();
        String list = park.paseo("auditor", "stages", "daylight-api").out();
        assertTrue(list.contains(stage) && list.contains("MEDIAN"), list);
        JsonNode shifts = park.as("auditor").get("/api/v1/pace/shifts?component=daylight-api&stage=" + stage).good();
        assertTrue(shifts.path("points").size() >= 1 && shifts.path("shifts").isEmpty(), shifts.toString());
        String lately = park.paseo("auditor", "shifts", "daylight-api", "--in", "staging").out();
        assertTrue(lately.contains("It did not move by more than it varies."), lately);
        assertEquals(400, park.as("auditor").get("/api/v1/pace/shifts?component=daylight-api").status());
        assertEquals(404, park.as("auditor").get("/api/v1/pace/shifts?component=none&stage=unit").status());
    }

    @Test
    void whatHappenedIsToldTheNewestFirst() {
        assertEquals(List.of("production  closed", "production 1.4.2 ended rejected"),
                told("environment=production"));
        assertEquals(List.of("staging  let-go", "staging  held", "staging  let-go", "staging 1.4.1 went-live",
                "staging  held",
                "staging 1.4.2 went-live",
                "staging 1.4.1 went-live"), told("environment=staging&component=daylight-api"));
        assertEquals(List.of("test 1.4.2 went-live", "test 1.4.1 went-live"), told("host=test-1"));
        assertEquals(List.of("production 1.4.2 ended rejected"), told("by=approver-1"));
        assertEquals(List.of("test 1.4.1 went-live"), told("environment=test&until=" + before));
        assertEquals(List.of("test 1.4.2 went-live"), told("environment=test&since=" + before));
        assertEquals(404, park.as("auditor").get("/api/v1/history?environment=moon").status());
        assertEquals(400, park.as("auditor").get("/api/v1/history?after=moon").status());
    }

    @Test
    void pageByPageItIsTheSame() {
        List<JsonNode> whole = get("?limit=200").path("happened").valueStream().toList();
        List<JsonNode> pages = new ArrayList<>();
        for (JsonNode page = get("?limit=2"); true; page = get("?limit=2&after=" + page.path("next").asString())) {
            page.path("happened").forEach(pages::add);
            if (!page.has("next")) {
                break;
            }
        }
        assertEquals(whole, pages);
    }

    @Test
    void lanesSayWhatWasLiveAndWhatWentWrong() {
        JsonNode lanes = get("/lanes?component=daylight-api").path("lanes");
        assertEquals(List.of("test", "staging"),
                lanes.valueStream().map(each -> each.path("environment").asString()).toList());
        JsonNode staging = lanes.path(1);
        assertEquals(List.of("1.4.1", "1.4.2", "1.4.1"),
                staging.path("live").valueStream().map(each -> each.path("version").asString()).toList());
        assertEquals(staging.path("live").path(0).path("until"), staging.path("live").path(1).path("from"));
        assertEquals("Snow", staging.path("held").path(1).path("reason").asString());
        assertEquals(400, park.as("auditor").get("/api/v1/history/lanes?since=2020-01-01T00:00:00Z").status());
    }

    @Test
    void twoMomentsAreCompared() {
        assertEquals(List.of("test 1.4.1 1.4.2", "staging 1.4.1 1.4.1"), get("/changes?since=" + before)
                .path("changed").valueStream().map(each -> each.path("environment").asString() + " "
                        + each.path("before").path("version").asString() + " "
                        + each.path("after").path("version").asString())
                .toList());
        assertEquals(0, get("/changes?since=" + before + "&until=" + before).path("changed").size());
        assertEquals(400, park.as("auditor").get("/api/v1/history/changes?since=" + Instant.now() + "&until=" + before)
                .status());
        List<String> hosts = get("/hosts?moment=" + before).path("hosts").valueStream()
                .map(each -> each.path("host").asString() + " " + each.path("version").asString()).toList();
        assertEquals(List.of("staging-1 1.4.1", "staging-2 1.4.1", "test-1 1.4.1"), hosts);
    }

    @Test
    void paceAddsUpWhatWasPromoted() {
        Await.until("all that went live is counted", () -> park.as("auditor").get("/api/v1/pace").good()
                .path("environments").valueStream().mapToInt(each -> each.path("live").asInt()).sum() == 4);
        JsonNode staging = park.as("auditor").get("/api/v1/pace?environment=staging").good().path("environments")
                .path(0);
        assertEquals("2 1", staging.path("live").asString("") + " " + staging.path("wentBack").asString(""));
        assertTrue(staging.has("median") && staging.has("mended"), staging.toString());
        JsonNode slowest = park.as("auditor").get("/api/v1/pace/lead-times?environment=staging&limit=1").good().path(0);
        assertEquals(slowest.path("seconds").asLong(), slowest.path("parts").valueStream()
                .mapToLong(part -> part.path("seconds").asLong()).sum());
        assertEquals(0, park.as("auditor").get("/api/v1/pace?label=nobody").good().path("environments").size());
        assertTrue(park.paseo("auditor", "pace", "staging").out().contains("MEDIAN"));
        assertEquals(3, park.paseo("auditor", "pace", "staging", "--slowest").out().lines().count());
    }

    @Test
    void paceIsTakenAwayAsATable() throws Exception {
        Path file = folder.resolve("pace.csv");
        assertEquals(0, park.paseo("auditor", "pace", "--since", "1d", "--into", file.toString()).code());
        List<String> lines = Files.readAllLines(file);
        assertEquals("deployment,component,version,environment,live,seconds,committed,turn,agents,building,before,"
                + "people,closed,held,queue,time,deploying,bad for", lines.getFirst());
        assertTrue(lines.stream().anyMatch(line -> line.contains(",daylight-api,\"1.4.2\",staging,")), lines::toString);
    }

    /** Stricter rules for staging, held against what went there; looser ones for test, which asks nothing. */
    @Test
    void stricterRulesNameWhatTheyWouldHaveStopped() throws Exception {
        String stricter = Scenario.environments(park::hostAddress).replace("    follows: test\n", "    follows: test\n"
                + "    to-enter:\n      approvals: {from: approvers, count: 1}\n      facts: {Measured: "
                + "\"coverage.lines > 0.5\"}\n");
        JsonNode answer = park.as("auditor").post("/api/v1/environments/dry-run", Map.of("text", stricter, "days", 1))
                .good();
        assertEquals(1, answer.path("environments").size(), "the others stay as they are");
        JsonNode staging = answer.path("environments").path(0);
        assertEquals("staging 2 0", staging.path("environment").asString() + " " + staging.path("went").asString("")
                + " " + staging.path("ended").asString(""));
        assertEquals(List.of("1.4.2 stopped", "1.4.1 stopped"), staging.path("found").valueStream()
                .map(each -> each.path("version").asString() + " " + each.path("outcome").asString()).toList());
        assertEquals(2, staging.path("more").size());
        assertEquals(400, park.as("auditor").post("/api/v1/environments/dry-run", Map.of("text", stricter, "days", 0))
                .status());
        assertEquals(422, park.as("auditor").post("/api/v1/environments/dry-run", Map.of("text", "moon: 1")).status());
        Path file = Files.writeString(folder.resolve("stricter.yaml"), stricter);
        String said = park.paseo("admin", "environment", "load", file.toString(), "--dry-run", "--days", "1").out();
        assertTrue(said.contains("would have stopped 2 of 2") && said.contains("daylight-api 1.4.2 into staging")
                && said.contains("never reported"), said);
    }

    @Test
    void aReleaseRecordIsOneDocumentInThreeForms() throws Exception {
        String of = "/api/v1/release-records";
        Await.until("a signed head covers what was done last", () -> park.as("auditor").get(of + "?deployment=" + back)
                .good().path("covered").asBoolean());
        JsonNode record = park.as("auditor").get(of + "?deployment=" + back).good();
        JsonNode release = record.path("releases").path(0);
        assertEquals("daylight-api 1.4.1 into staging", record.path("about").asString());
        assertEquals("rollback 1.4.2", release.path("deployment").path("kind").asString() + " "
                + release.path("difference").path("live").asString());
        assertEquals(List.of("staging-1 good", "staging-2 good"), release.path("hosts").valueStream()
                .map(host -> host.path("host").asString() + " " + host.path("outcome").asString()).toList());
        assertEquals(64, release.path("version").path("artifacts").path(0).path("digest").asString().length());
        assertTrue(release.path("trail").valueStream().allMatch(entry -> entry.path("position").asLong() < record
                .path("head").path("size").asLong()), record.toString());
        Path pdf = folder.resolve("release.pdf");
        assertEquals(0, park.paseo("auditor", "release-record", "production", "--since", "1d", "--into",
                pdf.toString()).code());
        assertTrue(new String(Files.readAllBytes(pdf), StandardCharsets.ISO_8859_1).startsWith("%PDF-1."));
        Path page = folder.resolve("release.html");
        assertEquals(0, park.paseo("auditor", "release-record", "production", "--since", "1d", "--into",
                page.toString()).code());
        String text = Files.readString(page);
        assertTrue(text.contains("daylight-api 1.4.2 into production: rejected")
                && text.contains("Not on the day of the race.") && text.contains("One of approvers approves"), text);
        assertTrue(park.paseo("auditor", "release-record", "deployment", Long.toString(back)).out()
                .contains("hosts: staging-1 good, staging-2 good"));
        assertTrue(park.paseo("auditor", "release-record", "production", "--into", "record.doc").out()
                .contains("record.doc should end in .pdf, .html or .json"));
        assertTrue(park.paseo("auditor", "release-record", "set", "moon").out().contains("There is no set moon"));
    }

    @Test
    void whatVersionsAreMadeOfIsFoundComparedAndAskedFor() throws Exception {
        String name = "pkg:maven/park.example/horizon";
        String live = park.paseo("auditor", "parts", "horizon", "--live").out();
        assertTrue(live.contains("1.4.1  staging") && live.contains("1.4.2  test") && live.contains(name + "@3.2"),
                live);
        assertEquals(1, park.paseo("auditor", "parts", name + "@3.0").code());
        assertTrue(park.paseo("auditor", "parts", "daylight-api", "1.4.1").out().contains("huts"));
        JsonNode compared = park.as("auditor").get("/api/v1/comparison/versions/daylight-api?from=1.4.1&to=1.4.2")
                .good();
        assertEquals("[{\"name\":\"" + name + "\",\"live\":[\"3.1\"],\"proposed\":[\"3.2\"]}]",
                compared.path("parts").toString());
        assertTrue(park.as("auditor").get("/api/v1/found?text=horiz").good().valueStream()
                .anyMatch(found -> found.path("thing").asString().equals("package")));
        String forbidden = Scenario.environments(park::hostAddress).replace("    follows: test\n", "    follows: test\n"
                + "    to-enter:\n      facts: {Not 3.2: \"!('" + name + "@3.2' in parts.packages)\"}\n");
        JsonNode dry = park.as("auditor").post("/api/v1/environments/dry-run", Map.of("text", forbidden)).good();
        assertEquals(List.of("1.4.2 stopped"), dry.path("environments").path(0).path("found").valueStream()
                .map(each -> each.path("version").asString() + " " + each.path("outcome").asString()).toList());
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("auditor", Park.PASSWORD);
            browser.open("/packages?name=horizon");
            browser.see(By.xpath("//tr[contains(., 'daylight-api 1.4.2')][contains(., 'test')]"));
        }
    }

    /** With a token that may nothing else; a gate that asks for it opens at once. */
    @Test
    void evidenceIsAddedAfterSealing() throws Exception {
        String token = park.paseo("release-engineer", "token", "make", "load tests", "--may", "add-evidence").out()
                .strip();
        Client tool = new Client(park.address(), token);
        assertEquals(403, tool.get("/api/v1/deployments").status());
        assertEquals(201, tool.post("/api/v1/versions/daylight-api/1.4.1/sign-offs", Map.of("name", "Ana Ruiz", "words",
                "Walked it", "environment", "staging")).status());
        Path report = Files.writeString(folder.resolve("load.xml"), "<testsuite><testcase name=\"load\"/></testsuite>");
        for (int twice = 0; twice < 2; twice++) {
            assertEquals(0, park.paseo("release-engineer", "evidence", "add", "daylight-api", "1.4.1", "tests",
                    report.toString()).code());
        }
        Path signature = Files.writeString(folder.resolve("app.sig"), "made up");
        assertEquals(0, park.paseo("release-engineer", "evidence", "add", "daylight-api", "1.4.1", "signature",
                signature.toString()).code());
        assertTrue(park
                .paseo("release-engineer", "evidence", "add", "daylight-api", "1.4.1", "parts", report.toString()).out()
                .contains("parts: is <testsuite>, not CycloneDX"));
        String list = park.paseo("auditor", "evidence", "list", "daylight-api", "1.4.1").out();
        assertEquals(4, list.lines().count(), list);
        assertTrue(list.contains("Ana Ruiz: Walked it"), list);
        String sha256 = park.as("auditor").get("/api/v1/versions/daylight-api/1.4.1/evidence").good().path(2)
                .path("sha256").asString();
        Path back = folder.resolve("back.sig");
        assertEquals(0, park.paseo("auditor", "evidence", "fetch", "daylight-api", "1.4.1", sha256, "--into",
                back.toString()).code());
        assertEquals("made up", Files.readString(back));
        JsonNode fact = park.as("auditor").post("/api/v1/environments/staging/facts", Map.of("condition",
                "'Ana Ruiz' in at.staging.added.names && 'signature' in added.kinds && tests.total == 1")).good();
        assertTrue(
                fact.path("deployments").valueStream().anyMatch(each -> each.path("version").asString().equals("1.4.1")
                        && each.path("holds").asBoolean()),
                fact.toString());
        assertTrue(park.as("auditor").get("/api/v1/audit?what=evidence+added").good().path("entries").size() >= 3);
        assertTrue(
                park.as("auditor").get("/api/v1/release-records?deployment=" + LookingBackTest.back).good().toString()
                        .contains("Ana Ruiz"));
        assertEquals(403, park.as("developer").post("/api/v1/versions/daylight-api/1.4.1/sign-offs",
                Map.of("name", "Dev", "words", "Mine")).status());
    }

    @Test
    void whatIsNewIsToldForAnAnnouncement() {
        String notes = park.paseo("auditor", "release-notes", "--in", "test", "--since", before.toString()).out();
        assertTrue(notes.contains("## daylight-api 1.4.2, after 1.4.1\n\n- "), notes);
        assertTrue(park.paseo("auditor", "release-notes", "--in", "staging", "--since", before.toString()).out()
                .contains("Nothing has changed."), "it went back to what was there");
        String version = park.paseo("auditor", "release-notes", "daylight-api", "1.4.1", "--from", "1.4.2").out();
        assertTrue(version.contains("No longer in it:\n\n- "), version);
        assertTrue(park.paseo("auditor", "release-notes").out().contains("should be COMPONENT VERSION"));
    }

    @Test
    void theClientSaysTheSame() {
        String production = park.paseo("auditor", "history", "production", "--since", "1d").out();
        assertTrue(production.contains("1.4.2 rejected") && production.contains("Race")
                && !production.contains("staging"), production);
        String place = park.paseo("auditor", "history", "daylight-api", "--in", "staging", "--limit", "1").out();
        assertTrue(place.contains("hold lifted") && place.contains("more: --after "), place);
        String changed = park.paseo("auditor", "where", "--changed-since", before.toString()).out();
        assertTrue(changed.contains("1.4.1, deployed once more"), changed);
        String hosts = park.paseo("auditor", "where", "--hosts", "--at", before.toString()).out();
        assertTrue(hosts.contains("staging-2") && hosts.lines().count() == 4, hosts);
        assertTrue(park.paseo("auditor", "history", "--since", "yesterday").out().contains("how long ago, such as"));
    }

    @Test
    void thePictureIsPressedForAMoment() throws Exception {
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("auditor", Park.PASSWORD);
            browser.open("/history?since=1h&component=daylight-api");
            browser.see(By.xpath("//td[contains(., '1.4.2 rejected')]"));
            String lane = "//div[@aria-label='What was live, over time']//div[contains(@class, 'cursor-crosshair')]";
            browser.see(By.xpath("(" + lane + ")[2]//a[contains(@title, '1.4.2')]"));
            browser.see(By.xpath("(" + lane + ")[1]")).click();
            browser.see(By.xpath("//h2[starts-with(., 'At ')]"));
            browser.see(By.xpath("//section//tr[contains(., 'staging')][contains(., 'nothing')]"));
            browser.open("/history?since=1h&component=daylight-api&at=" + before + "&with=" + Instant.now());
            browser.see(By.xpath("//section//tr[contains(., 'staging')][contains(., 'deployed once more')]"));
            browser.see(By.xpath("//section//tr[contains(., 'test')][contains(., '1.4.2')]//a[.='compare']"));
            browser.open("/pace?since=1h");
            browser.see(By.xpath("//section[@aria-label='Where the time goes']//*[name()='svg']"));
            browser.see(By.xpath("//tr[contains(., '1.4.2')][contains(., 'gone back from')]"));
        }
    }
}
