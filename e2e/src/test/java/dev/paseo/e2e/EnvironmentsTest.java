package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/** Environments and their rules as a file: exported, copied, checked and loaded; and what people choose to be told. */
class EnvironmentsTest {

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.component();
    }

    @AfterAll
    static void close() {
        park.close();
    }

    @Test
    void aCopyIsLoadedByItselfAndNobodysChangeIsLost() {
        Park.Said copy = park.paseo("admin", "environment", "copy", "production", "--as", "showroom");
        assertTrue(copy.out().contains("follows: staging"), copy.out());
        assertEquals("1 problems",
                park.as("developer")
                        .post("/api/v1/environments/check", Map.of("text", copy.out().replace("approvers", "approver")))
                        .good().path("problems").size() + " problems");
        JsonNode problem = park.as("developer")
                .post("/api/v1/environments/check",
                        Map.of("text", copy.out().replace("follows: staging", "follows: stagin")))
                .good().path("problems").path(0);
        assertTrue(problem.path("message").asString().contains("did you mean staging?")
                && problem.path("line").asInt() > 1, problem.toString());
        JsonNode checked = park.as("developer").post("/api/v1/environments/check", Map.of("text", copy.out())).good();
        assertEquals("is new", checked.path("changes").path(0).path("what").asString(), checked.toString());
        String base = park.as("admin").get("/api/v1/environments/file").good().path("digest").asString();
        assertEquals(403, park.as("release-engineer")
                .put("/api/v1/environments", Map.of("text", copy.out(), "base", base, "loosen", true)).status());
        park.as("admin").put("/api/v1/environments", Map.of("text", copy.out(), "base", base, "loosen", true)).good();
        Client.Answer late = park.as("admin").put("/api/v1/environments",
                Map.of("text", copy.out(), "base", base, "loosen", true));
        assertEquals(409, late.status());
        assertTrue(late.detail().contains("have changed since you began"), late.detail());
        List<String> names = park.as("admin").get("/api/v1/environments").body().valueStream()
                .map(each -> each.path("name").asString()).toList();
        assertEquals(List.of("test", "staging", "production", "showroom"),
                names.stream().filter(name -> !name.equals("basin")).toList(), "what is there keeps its order");
    }

    @Test
    void aCopyIsMadeInTheConsole() throws Exception {
        String password = Files.readString(park.folder.resolve("data/admin-password")).strip();
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("admin", password);
            browser.open("/environments/test");
            browser.click(By.linkText("Copy"));
            browser.see(By.cssSelector(".bring-in input")).sendKeys("basin");
            browser.click(By.xpath("//button[.='Show the copy']"));
            browser.seeText("is new");
            browser.click(By.xpath("//button[.='Load it']"));
            browser.seeText("Rules of revision 1.");
            assertTrue(park.as("developer").get("/api/v1/environments").body().toString().contains("\"basin\""));
            browser.open("/environments-file?environment=test");
            browser.seeText("Nothing changes");
        }
    }

    @Test
    void whatIsToldOfOneComponentIsChosenForItself() {
        Client approver = park.as("approver-1");
        assertEquals(404,
                approver.put("/api/v1/notices/choices",
                        Map.of("event", "waits", "channel", "mail", "delivery", "off", "component", "daylight-apy"))
                        .status());
        approver.put("/api/v1/notices/choices",
                Map.of("event", "decided", "channel", "mail", "delivery", "daily", "component", "daylight-api")).good();
        JsonNode choices = approver.get("/api/v1/notices/choices").good();
        assertEquals("off", mail(choices.path("everywhere"), "decided"));
        assertEquals("daily", mail(choices.path("components").path("daylight-api"), "decided"));
        approver.delete("/api/v1/notices/choices/daylight-api").good();
        assertTrue(approver.get("/api/v1/notices/choices").good().path("components").isEmpty());
    }

    private static String mail(JsonNode choices, String event) {
        return choices.valueStream().filter(each -> each.path("event").asString().equals(event)).findFirst()
                .orElseThrow().path("mail").asString();
    }
}
