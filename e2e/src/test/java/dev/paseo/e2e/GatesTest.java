package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * What stands at gates: checklists at the gate onward from staging, people, hours, time live and facts at the gate
 * before production; and what people are told.
 */
class GatesTest {

    private static GreenMail mail;
    private static Park park;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        mail = new GreenMail(new ServerSetup(Processes.freePort(), "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        mail.start();
        park = Park.open("--paseo.clock-may-move=true", "--spring.mail.host=127.0.0.1",
                "--spring.mail.port=" + mail.getSmtp().getPort());
        park.account("tester", List.of("tester"), List.of("testers"));
        park.account("operator", List.of("operator", "approver"), List.of("operators"));
        repository = park.component();
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", "");
    }

    @AfterAll
    static void close() {
        park.close();
        mail.stop();
    }

    private static void rules(String toGoOn, String toEnter) {
        park.as("admin").put("/api/v1/environments", Map.of("text", Scenario.environments(park::hostAddress)
                .replace("  staging:\n    follows: test\n",
                        "  staging:\n    follows: test\n    to-go-on:\n      " + toGoOn + "\n")
                .replace("{from: approvers, count: 1, not-by", "{from: approvers, count: 2, not-by")
                .replace("within: 48h}\n", "within: 48h}\n" + toEnter), "loosen", true)).good();
    }

    private static int built;

    /** A new version that is live in staging; its passage there. */
    private static synchronized long inStaging(String author) throws IOException, InterruptedException {
        built++;
        repository.push(author, "main", built == 1 ? Scenario.files() : Map.of("times", "of " + built));
        park.liveIn("staging", version());
        return passage();
    }

    private static String version() {
        return "1.4." + built;
    }

    private static long passage() {
        return park.as("developer").get("/api/v1/versions/daylight-api/" + version() + "/passages").body().valueStream()
                .filter(each -> each.path("environment").asString().equals("staging")).findFirst().orElseThrow()
                .path("id").asLong();
    }

    private static JsonNode passage(long id) {
        return park.as("tester").get("/api/v1/passages/" + id).body();
    }

    private static Client.Answer tick(String who, long passage, String item, String outcome, String note) {
        return park.as(who).post("/api/v1/passages/" + passage + "/ticks",
                Map.of("item", item, "outcome", outcome, "note", note));
    }

    private static void tickAll(long passage) {
        tick("tester", passage, "Board shows the day's turning time", "done", "").good();
        tick("tester", passage, "Old links still work", "done", "all 12").good();
        assertEquals("ended", passage(passage).path("status").asString());
    }

    private static String sentence(long deployment, String criterion) {
        return park.deployment(deployment).path("gate").valueStream()
                .filter(each -> each.path("name").asString().contains(criterion)).findFirst()
                .map(each -> each.path("state").asString() + ": " + each.path("sentence").asString())
                .orElse("no " + criterion + " in " + park.deployment(deployment).path("gate"));
    }

    private static boolean told(String who, String event, String title) {
        return park.as(who).get("/api/v1/notices").body().path("notices").valueStream()
                .anyMatch(each -> each.path("event").asString().equals(event)
                        && each.path("title").asString().contains(title));
    }

    private static boolean waits(String who, String kind) {
        return park.as(who).get("/api/v1/waiting").body().path("gates").valueStream()
                .anyMatch(each -> each.path("kind").asString().equals(kind)
                        && each.path("version").asString().equals(version()));
    }

    @Test
    void aChecklistEndsThePassageAndAFailedItemKeepsTheVersionThere() throws Exception {
        long passage = inStaging("developer");
        Await.until("the tester is asked",
                () -> waits("tester", "checklist") && told("tester", "waits", "Your checklist"));
        assertEquals(403, tick("developer", passage, "Old links still work", "done", "").status(),
                "a developer has no role that decides");
        assertTrue(tick("approver-1", passage, "Old links still work", "done", "").detail()
                .contains("approver-1 is not in the group testers"));
        Client.Answer unknown = tick("tester", passage, "Old link still works", "done", "");
        assertEquals(404, unknown.status());
        assertTrue(unknown.detail().contains("did you mean Old links still work?"), unknown.detail());
        assertEquals("/note",
                tick("tester", passage, "Old links still work", "failed", " ").body().path("pointer").asString());
        tick("tester", passage, "Old links still work", "failed", "/times answers 404").good();
        JsonNode stays = passage(passage);
        assertEquals("open", stays.path("status").asString());
        assertEquals("\"Old links still work\" failed, says tester: \"/times answers 404\"",
                stays.path("reason").asString());
        Client.Answer early = park.as("release-engineer").post("/api/v1/deployments",
                Map.of("component", "daylight-api", "version", version(), "environment", "production"));
        assertEquals("production does not take it: Through staging. It has not passed staging yet.", early.detail());
        tick("tester", passage, "Old links still work", "cleared", "").good();
        tickAll(passage);
        assertFalse(waits("tester", "checklist"));
        assertEquals(409, tick("tester", passage, "Old links still work", "done", "").status(), "it has ended");
        assertTrue(park.as("auditor").get("/api/v1/audit?limit=200").body().toString().contains("item failed"));
    }

    @Test
    void aNewerVersionWaitsWhileTheOneBeforeIsTested() throws Exception {
        long passage = inStaging("developer");
        repository.push("developer", "main", Map.of("times", "newer, while " + built + " is tested"));
        built++;
        Await.until("the newer one waits", () -> park.as("developer").get("/api/v1/history/daylight-api/staging").body()
                .path(0).path("version").asString("").equals(version()));
        long newer = park.as("developer").get("/api/v1/history/daylight-api/staging").body().path(0).path("id")
                .asLong();
        assertTrue(sentence(newer, "Nothing is being tested").contains("1.4." + (built - 1) + " is being tested there"),
                sentence(newer, "Nothing is being tested"));
        tickAll(passage);
        park.deploymentIs(newer, "live");
        tickAll(passage());
    }

    @Test
    void aListEditedWhileItIsTickedKeepsWhatWasTicked() throws Exception {
        long passage = inStaging("developer");
        tick("tester", passage, "Old links still work", "done", "").good();
        rules("checklist: {for: testers, items: [Old links still work, Times agree with the almanac]}", "");
        Await.until("the new list is asked for", () -> passage(passage).path("gate").path(0).path("sentence").asString()
                .contains("Times agree with the almanac"));
        assertEquals("1 of 2 ticked", passage(passage).path("gate").path(0).path("name").asString());
        tick("tester", passage, "Times agree with the almanac", "done", "").good();
        assertEquals("ended", passage(passage).path("status").asString());
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", "");
    }

    @Test
    void twoApprovalsTimeFactsAndHoursOpenProductionTogether() throws Exception {
        String toEnter = "      live-for: 2h\n      open: {hours: [\"daily 00:00-24:00\"]}\n      facts: "
                + "\"!has(tests.failed) && component == 'daylight-api'\"\n";
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", toEnter);
        tickAll(inStaging("developer"));
        long id = park.promote(version(), "production");
        assertTrue(sentence(id, "Live for 2 h").startsWith("not-yet: Live and healthy in staging for"),
                sentence(id, "Live for"));
        assertTrue(sentence(id, "Opening hours").startsWith("met: Open until"), sentence(id, "Opening hours"));
        assertTrue(
                sentence(id, "component ==")
                        .startsWith("met: It holds: tests.failed was never reported, component is daylight-api"),
                sentence(id, "component =="));
        assertTrue(park.rule("release-engineer", id, true, "mine").detail().contains("the requester may not decide"));
        park.rule("approver-1", id, true, "Times agree.").good();
        assertTrue(
                park.rule("approver-1", id, true, "Twice.").detail().contains("approver-1 has approved this already"));
        park.as("admin").put("/api/v1/places/daylight-api/production/variables",
                Map.of("name", "LOG_LEVEL", "value", "info " + id)).good();
        assertTrue(
                sentence(id, "of 2 approvals")
                        .contains("What approver-1 approved no longer counts: the variables changed since."),
                sentence(id, "of 2 approvals"));
        Await.until("both are told", () -> told("approver-1", "voided", "No longer approved")
                && told("release-engineer", "voided", "No longer approved"));
        park.rule("approver-1", id, true, "Looked again.").good();
        park.as("approver-1").delete("/api/v1/deployments/" + id + "/decision").good();
        assertTrue(sentence(id, "of 2 approvals").startsWith("asked: Waits for approvers"),
                sentence(id, "of 2 approvals"));
        park.rule("approver-1", id, true, "After all.").good();
        park.rule("approver-2", id, true, "Good.").good();
        assertEquals("waiting", park.status(id), "it has not stretch yet");
        park.as("admin").post("/api/v1/clock", Map.of("by", "PT2H")).good();
        park.deploymentIs(id, "live");
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", "");
    }

    /**
     * Whoever pushed it may be one of those who approve: before, the author of the newest commit was taken to have
     * pushed it.
     */
    @Test
    void aPushOfWhichNobodyToldWhoPushedItWantsOneApprovalMore() throws Exception {
        built++;
        repository.push("developer", "main", built == 1 ? Scenario.files() : Map.of("times", "of " + built), "");
        park.liveIn("staging", version());
        tickAll(passage());
        long id = park.promote(version(), "production");
        park.rule("approver-1", id, true, "Good.").good();
        park.rule("approver-2", id, true, "Good.").good();
        assertTrue(sentence(id, "of 3 approvals").contains("Who is the pusher of " + repository.head() + " to main?"),
                sentence(id, "of 3 approvals"));
        assertEquals("waiting", park.status(id));
        assertTrue(
                park.paseo("developer", "component", "pushed", "daylight-api", repository.head(), "--by", "developer")
                        .out().contains("may not"));
        assertEquals(0, park
                .paseo("admin", "component", "pushed", "daylight-api", repository.head(), "--by", "developer").code());
        assertTrue(park.paseo("admin", "component", "pushed", "daylight-api", repository.head(), "--by", "developer")
                .out().contains("whose pusher is unknown"), "it is told once");
        park.deploymentIs(id, "live");
    }

    @Test
    void aClosedPeriodSaysUntilWhenAndOpensByItself() throws Exception {
        tickAll(inStaging("developer"));
        String now = park.as("admin").get("/api/v1/clock").body().path("now").asString();
        String from = now.substring(0, 4) + now.substring(5, 7) + now.substring(8, 10) + "T" + now.substring(11, 13)
                + "0000Z";
        String calendar = "    closed: |\n      BEGIN:VCALENDAR\n      VERSION:2.0\n      PRODID:-//park//EN\n      "
                + "BEGIN:VEVENT\n      UID:hill race\n      DTSTAMP:20260101T000000Z\n      DTSTART:"
                + from
                + "\n      DURATION:PT6H\n      SUMMARY:Hill race\n      END:VEVENT\n      END:VCALENDAR\n";
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", calendar);
        long id = park.promote(version(), "production");
        assertTrue(sentence(id, "Not closed").matches("not-yet: production is closed until .* UTC: \"Hill race\"\\."),
                sentence(id, "Not closed"));
        assertEquals("Hill race", park.as("developer").get("/api/v1/places/daylight-api/production").good()
                .path("closedPeriod").path("summary").asString());
        assertTrue(park.as("developer").get("/api/v1/whereabouts").good().path("environments").valueStream()
                .anyMatch(each -> each.path("name").asString().equals("production")
                        && each.path("closedByCalendar").asBoolean()));
        assertTrue(park.paseo("admin", "close", "production", "--lift").out()
                .contains("production is closed by its calendar until"));
        park.rule("approver-1", id, true, "Good.").good();
        park.rule("approver-2", id, true, "Good.").good();
        assertEquals("waiting", park.status(id));
        park.as("admin").post("/api/v1/clock", Map.of("by", "PT6H")).good();
        park.deploymentIs(id, "live");
        rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", "");
    }

    @Test
    void aDecisionIsHandedOnAndTheTwoCountOnce() throws Exception {
        park.account("guide", List.of("approver"), List.of());
        tickAll(inStaging("guide"));
        long id = park.promote(version(), "production");
        assertEquals(403, park.rule("operator", id, true, "Not asked.").status());
        assertTrue(park.as("approver-1").post("/api/v1/deployments/" + id + "/handover", Map.of("to", "guide")).detail()
                .contains("guide is not in the group approvers, which decides here"));
        assertTrue(park.as("approver-1").post("/api/v1/deployments/" + id + "/handover", Map.of("to", "developer"))
                .detail().contains("developer has no role that decides"));
        assertEquals(
                "operator could not decide either: operator is not in the group approvers, which decides here, and "
                        + "stands in for nobody who is",
                park.as("approver-1").post("/api/v1/deployments/" + id + "/handover", Map.of("to", "operator"))
                        .detail());
        park.as("approver-1").post("/api/v1/deployments/" + id + "/handover", Map.of("to", "approver-2")).good();
        Await.until("who it was handed to is told",
                () -> told("approver-2", "waits", "approver-1 hands on to you: daylight-api " + version()));
        park.rule("approver-1", id, true, "After all.").good();
        park.as("admin").delete("/api/v1/groups/approvers/members/approver-2").good();
        assertEquals(403, park.rule("approver-2", id, true, "Removed a second ago.").status());
        Await.until("that nobody is left is told", () -> told("admin", "nobody", "waits for nobody"));
        park.as("admin").put("/api/v1/groups/approvers/members/approver-2", Map.of()).good();
        park.rule("approver-2", id, true, "Good.").good();
        park.deploymentIs(id, "live");
    }

    @Test
    void theMailLeadsToTheDecisionOnceAndOnlyItsReader() throws Exception {
        tickAll(inStaging("developer"));
        long id = park.promote(version(), "production");
        Await.until("the mail has come", () -> !link("approver-1", version()).isEmpty());
        MimeMessage message = Arrays.stream(mail.getReceivedMessages())
                .filter(each -> body(each).contains("What: daylight-api " + version() + "\r\nWhere: into production"))
                .findFirst().orElseThrow();
        assertTrue(message.getContentType().startsWith("multipart/"), message.getContentType());
        assertTrue(body(message).contains("Asked by: release-engineer"), body(message));
        String token = link("approver-1", version());
        assertEquals(404, park.as("approver-1").post("/api/v1/links/paseo-link_forged", Map.of()).status());
        Client.Answer forwarded = park.as("approver-2").post("/api/v1/links/" + token, Map.of());
        assertEquals(403, forwarded.status());
        assertEquals(
                "This link was sent to approver-1, and you are signed in as approver-2: a link is for the one it was "
                        + "sent to",
                forwarded.detail());
        assertEquals("/deployments/" + id,
                park.as("approver-1").post("/api/v1/links/" + token, Map.of()).good().path("path").asString());
        Client.Answer again = park.as("approver-1").post("/api/v1/links/" + token, Map.of());
        assertEquals(409, again.status());
        assertEquals("This link was used on TIME, and a link works once",
                again.detail().replaceAll("on .* UTC", "on TIME"));
        assertEquals("waiting", park.status(id), "a link decides nothing");
        park.rule("approver-1", id, false, "Times differ at the valley-house.").good();
        park.deploymentIs(id, "rejected");
        Await.until("who asked is told", () -> told("release-engineer", "decided", "was rejected"));
    }

    private static String body(MimeMessage message) {
        return GreenMailUtil.getWholeMessage(message).replace("=\r\n", "").replace("=3D", "=");
    }

    /** The token of the newest mail to somebody about a version. */
    private static String link(String who, String version) {
        String found = "";
        for (MimeMessage message : mail.getReceivedMessages()) {
            Matcher link = Pattern.compile("/link/(paseo-link_[A-Za-z0-9_-]+)").matcher(body(message));
            if (body(message).contains("To: " + who + "@")
                    && body(message).contains("What: daylight-api " + version + "\r\nWhere: into production")
                    && link.find()) {
                found = link.group(1);
            }
        }
        return found;
    }

    @Test
    void whatIsExportedLoadsTheSameRules() throws Exception {
        JsonNode before = park.as("admin").get("/api/v1/environments").body();
        String text = park.as("admin").get("/api/v1/environments/file").good().path("text").asString();
        park.as("admin").put("/api/v1/environments", Map.of("text", text, "loosen", true)).good();
        assertEquals(before, park.as("admin").get("/api/v1/environments").body(), text);
    }

    @Test
    void aDeputyDecidesForATimeAndTheTwoCountOnce() throws Exception {
        tickAll(inStaging("developer"));
        long id = park.promote(version(), "production");
        Instant now = Instant.parse(park.as("admin").get("/api/v1/clock").body().path("now").asString());
        assertEquals(403, park.as("approver-2").post("/api/v1/deputies",
                Map.of("account", "approver-1", "deputy", "operator", "until", now.plusSeconds(3600).toString()))
                .status());
        assertTrue(park.as("approver-1")
                .post("/api/v1/deputies", Map.of("deputy", "developer", "until", now.plusSeconds(3600).toString()))
                .detail().contains("developer has no role that decides"));
        assertEquals(400,
                park.as("approver-1")
                        .post("/api/v1/deputies", Map.of("deputy", "operator", "until", now.minusSeconds(1).toString()))
                        .status());
        assertEquals(403, park.rule("operator", id, true, "Not yet.").status());
        Park.Said said = park.paseo("approver-1", "deputy", "name", "operator", "--from",
                now.plusSeconds(3600).toString(), "--until", now.plusSeconds(7200).toString());
        assertTrue(said.out().startsWith("operator decides in your place until"), said.out());
        assertEquals(403, park.rule("operator", id, true, "Not yet.").status());
        park.as("admin").post("/api/v1/clock", Map.of("by", "PT1H")).good();
        Await.until("the deputy is asked", () -> park.as("operator").get("/api/v1/waiting").body().path("gates")
                .toString().contains("\"deployment\":" + id));
        park.rule("operator", id, true, "For approver-1.").good();
        assertTrue(sentence(id, "1 of 2").contains("operator said yes in place of approver-1"), sentence(id, "1 of 2"));
        assertTrue(park.rule("approver-1", id, true, "Too.").detail()
                .contains("operator has approved this already in place of approver-1"));
        long number = park.as("operator").get("/api/v1/deputies").body().path(0).path("id").asLong();
        assertEquals(403, park.as("approver-2").delete("/api/v1/deputies/" + number).status());
        park.as("operator").delete("/api/v1/deputies/" + number).good();
        assertEquals(0, park.as("approver-1").get("/api/v1/deputies").body().size());
        assertTrue(sentence(id, "1 of 2").contains("operator said yes in place of approver-1"),
                "what was decided stands: " + sentence(id, "1 of 2"));
        assertTrue(
                park.paseo("developer", "show", "deployment", Long.toString(id)).out()
                        .contains("approved by operator in place of approver-1: \"For approver-1.\""),
                () -> park.paseo("developer", "show", "deployment", Long.toString(id)).out());
        assertTrue(
                park.as("auditor").get("/api/v1/audit").body().toString().contains("\"in place of\":\"approver-1\""));
        assertTrue(park.as("auditor").get("/api/v1/audit").body().toString().contains("deputy set"));
        park.rule("approver-2", id, false, "Not today.").good();
    }

    @Test
    void somebodyOutsideIsAskedAndAnswersOnce() throws Exception {
        tickAll(inStaging("developer"));
        java.util.concurrent.BlockingQueue<String> questions = new java.util.concurrent.LinkedBlockingQueue<>();
        com.sun.net.httpserver.HttpServer desk = com.sun.net.httpserver.HttpServer
                .create(new java.net.InetSocketAddress("127.0.0.1", park.storePort), 0);
        desk.createContext("/", exchange -> {
            questions.add(exchange.getRequestHeaders().getFirst("webhook-signature") + " "
                    + new String(exchange.getRequestBody().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8));
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        desk.start();
        try {
            String ask = "      outside: {change-desk: {url: \"http://127.0.0.1:" + park.storePort + "/changes\"}}\n";
            rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", ask);
            assertEquals(404, park.as("admin")
                    .post("/api/v1/environments/production/outside/change-disk/secret", Map.of()).status());
            park.as("admin").post("/api/v1/environments/production/outside/change-desk/secret", Map.of()).good();
            long id = park.promote(version(), "production");
            String question = questions.poll(30, java.util.concurrent.TimeUnit.SECONDS);
            assertTrue(question != null && question.startsWith("v1,"), question);
            Matcher token = Pattern.compile("/hooks/answers/(paseo-answer_[A-Za-z0-9_-]+)").matcher(question);
            assertTrue(token.find(), question);
            assertTrue(sentence(id, "Answer from change-desk").startsWith("asked"),
                    sentence(id, "Answer from change-desk"));
            assertEquals(404,
                    park.as("developer").post("/hooks/answers/paseo-answer_forged", Map.of("yes", true)).status());
            park.as("developer").post("/hooks/answers/" + token.group(1), Map.of("yes", true, "words", "CHG-12"))
                    .good();
            assertEquals(409,
                    park.as("developer").post("/hooks/answers/" + token.group(1), Map.of("yes", false)).status(),
                    "it counts once");
            Await.until("it is met",
                    () -> sentence(id, "Answer from change-desk").equals("met: change-desk said yes: \"CHG-12\"."));
            park.rule("approver-1", id, false, "Not today.").good();
        } finally {
            desk.stop(0);
            rules("checklist: {for: testers, items: [Board shows the day's turning time, Old links still work]}", "");
        }
    }

    @Test
    void nobodyApprovesWhatIsBlockedOrHasExpired() throws Exception {
        tickAll(inStaging("developer"));
        long blocked = park.promote(version(), "production");
        park.as("release-engineer")
                .put("/api/v1/versions/daylight-api/" + version() + "/block", Map.of("reason", "runs backwards"))
                .good();
        park.deploymentIs(blocked, "withdrawn");
        assertEquals(409, park.rule("approver-1", blocked, true, "Too late.").status());
        park.as("admin").delete("/api/v1/versions/daylight-api/" + version() + "/block?reason=mended").good();
        long late = park.promote(version(), "production");
        park.as("admin").post("/api/v1/clock", Map.of("by", "PT47H")).good();
        Await.until("those who are asked are reminded", () -> told("approver-1", "expires", "waits until"));
        park.as("admin").post("/api/v1/clock", Map.of("by", "PT1H")).good();
        park.deploymentIs(late, "expired");
        Client.Answer refused = park.rule("approver-1", late, true, "Too late.");
        assertEquals(409, refused.status());
        assertTrue(refused.detail().contains("it is expired (no decision by "), refused.detail());
    }

    @Test
    void aTickMayBringAPicture() throws Exception {
        long passage = inStaging("developer");
        byte[] png = {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10, 0};
        assertEquals(400,
                picture("<svg onload='alert(1)'/>".getBytes(java.nio.charset.StandardCharsets.UTF_8)).status(),
                "what it says it is does not count");
        assertEquals(413, picture(Arrays.copyOf(png, 5_000_001)).status());
        String digest = picture(png).good().path("digest").asString();
        assertEquals(404, park.as("tester").post("/api/v1/passages/" + passage + "/ticks",
                Map.of("item", "Old links still work", "picture", "0".repeat(64))).status());
        park.as("tester").post("/api/v1/passages/" + passage + "/ticks",
                Map.of("item", "Old links still work", "picture", digest)).good();
        assertEquals(digest,
                passage(passage).path("checklists").path(0).path("items").path(1).path("picture").asString());
        tick("tester", passage, "Board shows the day's turning time", "done", "x".repeat(2001)).good();
        assertEquals(2000,
                passage(passage).path("checklists").path(0).path("items").path(0).path("note").asString().length(),
                "a note is cut");
    }

    private static Client.Answer picture(byte[] bytes) throws Exception {
        java.net.http.HttpResponse<String> answer = java.net.http.HttpClient.newHttpClient()
                .send(java.net.http.HttpRequest.newBuilder(java.net.URI.create(park.address() + "/api/v1/pictures"))
                        .header("Authorization", "Bearer " + park.as("tester").token())
                        .header("Content-Type", "image/png")
                        .POST(java.net.http.HttpRequest.BodyPublishers.ofByteArray(bytes)).build(),
                        java.net.http.HttpResponse.BodyHandlers.ofString());
        return new Client.Answer(answer.statusCode(), Client.JSON.readTree(answer.body()));
    }
}
