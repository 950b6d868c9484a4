package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Bringing components in, and what is kept with them. */
class ComponentsTest {

    private static final String FILE = "paseo: 1\ncomponent: path-lamp\nversions: \"1.{serial}\"\nstarts: [{push: "
            + "[main]}]\nstages: {light: {steps: [%s], keep: {lamp: lamp}}}\n";
    private static Park park;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder");
        repository = park.bring("path-lamp", Map.of("links", Map.of("Runbook", "https://park.example/lamp")));
        repository.push("developer", "main",
                Map.of("paseo.yaml", FILE.formatted("echo 1 > lamp"), "Makefile", "all:\n\ttrue\ntest:\n\ttrue\n"));
        park.runEnds("path-lamp", 1);
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static Client engineer() {
        return park.as("release-engineer");
    }

    @Test
    void aDraftSaysWhatIsThereAndOffersAnotherNameWhereItIsTaken() throws Exception {
        JsonNode there = engineer()
                .post("/api/v1/drafts", Map.of("component", "path-lamp", "repository", repository.url())).good();
        assertTrue(there.path("there").asBoolean());
        assertEquals("path-lamp-2", there.path("free").asString());
        Repository bare = new Repository(park.folder.resolve("repositories"), "bare");
        bare.push("developer", "main", Map.of("Makefile", "all:\n\ttrue\ncheck:\n\ttrue\n"));
        JsonNode drafted = engineer().post("/api/v1/drafts", Map.of("component", "bell", "repository", bare.url()))
                .good();
        assertTrue(drafted.path("text").asString().contains("make check"), drafted::toString);
        assertTrue(!drafted.has("free"));
        assertEquals(403,
                engineer().post("/api/v1/drafts", Map.of("component", "bell", "repository", "file:///etc")).status());
        Client.Answer taken = engineer().post("/api/v1/components", Map.of("name", "path-lamp", "repository",
                bare.url(), "trusted", List.of(), "allowed", List.of(), "secrets", List.of()));
        assertEquals("There is a component named path-lamp already; path-lamp-2 is free", taken.detail());
    }

    @Test
    void whatIsRegisteredIsLookedAtFirst() throws Exception {
        Repository master = new Repository(park.folder.resolve("repositories"), "signpost");
        master.push("developer", "main", Map.of("paseo.yml", FILE.formatted("true").replace("path-lamp", "signpost")));
        Park.Said refused = park.paseo("release-engineer", "component", "register", "signpost", "--repository",
                master.url(), "--trusted", "mian");
        assertEquals(1, refused.code(), refused::toString);
        assertTrue(refused.out().contains("warning: there is no branch mian; it has main."), refused::out);
        assertTrue(refused.out().contains("warning: there is no paseo.yaml on main: nothing starts until there is."),
                refused::out);
        assertTrue(
                refused.out().contains(
                        "warning: it has paseo.yml; if that is its pipeline file, register it with that path."),
                refused::out);
        assertTrue(refused.out().contains("Nothing was registered. If it is meant as it is, say so: --anyway"),
                refused::out);
        assertEquals(404, engineer().get("/api/v1/components/signpost").status());
        Park.Said said = park.paseo("release-engineer", "component", "register", "signpost", "--repository",
                master.url(), "--trusted", "main", "--file", "paseo.yml", "--start");
        assertEquals(0, said.code(), said::toString);
        assertTrue(said.out().contains(
                "The next push to main starts a run.\nRegistered signpost.\nStarted signpost#1. Watch it: paseo "
                        + "watch signpost#1\n"),
                said::out);
        park.runEnds("signpost", 1);
        assertEquals(400, engineer().post("/api/v1/components", Map.of("name", "bell", "repository", master.url(),
                "trusted", List.of(" "), "allowed", List.of(), "secrets", List.of())).status());
    }

    @Test
    void linksAreKeptAndAnAddressThatIsNoneIsTold() {
        assertEquals("https://park.example/lamp",
                engineer().get("/api/v1/components/path-lamp").good().path("links").path(0).path("address").asString());
        assertEquals(400,
                engineer().put("/api/v1/components/path-lamp/links", Map.of("Bad", "javascript:alert(1)")).status());
        assertEquals(403, park.as("auditor").put("/api/v1/components/path-lamp/links", Map.of()).status());
    }

    @Test
    void labelsAreKeptAndWhereaboutsAreGroupedByThem() {
        assertEquals(400, engineer().put("/api/v1/components/path-lamp/labels", Map.of("Team", "works")).status());
        assertEquals(400, engineer().put("/api/v1/components/path-lamp/labels", Map.of("team", " ")).status());
        assertEquals(403, park.as("auditor").put("/api/v1/components/path-lamp/labels", Map.of()).status());
        Park.Said said = park.paseo("release-engineer", "component", "labels", "path-lamp", "--label", "team=works",
                "--label", "tier=public");
        assertEquals("path-lamp has the labels team=works, tier=public.\n", said.out());
        assertEquals("works", engineer().get("/api/v1/whereabouts?component=path-lamp").good().path("rows").path(0)
                .path("labels").path("team").asString());
        assertTrue(park.paseo("developer", "where", "--group-by", "team").out().contains("\n\nteam works\npath-lamp "),
                () -> park.paseo("developer", "where", "--group-by", "team").out());
        assertTrue(park.paseo("developer", "where", "--label", "team=bakers").out()
                .startsWith("No component has this label"));
        assertEquals("path-lamp has no labels.\n",
                park.paseo("release-engineer", "component", "labels", "path-lamp").out());
    }

    @Test
    void aBadgeIsSeenByWhoeverHasItsAddressAndByNobodyElse() throws Exception {
        String address = park.as("developer").get("/api/v1/components/path-lamp/badge").good().path("address")
                .asString();
        String path = URI.create(address).getRawPath() + "?" + URI.create(address).getRawQuery();
        assertTrue(open(path).body().contains("aria-label=\"path-lamp main: passed\""), open(path)::body);
        assertEquals(404, open(path.replaceFirst("/badges/[^/]+", "/badges/guess")).statusCode());
        assertTrue(
                open(path.replaceFirst("branch=.*", "branch=%3Cscript%3E")).body().contains("&lt;script&gt;: no run"));
    }

    private static HttpResponse<String> open(String path) throws Exception {
        return HttpClient.newHttpClient().send(HttpRequest.newBuilder(URI.create(park.address() + path)).build(),
                HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void runsAreComparedWithEachOther() throws Exception {
        repository.push("developer", "main", Map.of("paseo.yaml", FILE.formatted("echo 2 > lamp")));
        park.runEnds("path-lamp", 2);
        JsonNode compared = park.as("developer").get("/api/v1/runs/path-lamp/2/comparison?with=1").good();
        assertEquals("Change paseo.yaml", compared.path("commits").path(0).path("summary").asString());
        assertEquals("lamp", compared.path("artifacts").path(0).path("name").asString());
        assertEquals("passed", compared.path("stages").path(0).path("after").asString());
    }

    @Test
    void aCheckKnowsWhatIsHere() {
        String text = """
                paseo: 1
                component: path-lamp
                stages:
                  light: {take: [{from: path-lampp}], steps: [a]}
                  glow: {take: [{from: path-lamp}], steps: [a], secrets: [WICK]}
                deployment: {on-each-host: [a]}
                route: [{tset: automatic}]
                """;
        JsonNode checked = park.as("developer")
                .post("/api/v1/components/path-lamp/pipeline/check", Map.of("text", text)).good();
        List<String> said = checked.path("problems").valueStream()
                .map(problem -> problem.path("line").asInt() + " " + problem.path("message").asString()).toList();
        assertEquals("4 there is no component path-lampp; did you mean path-lamp?", said.get(0));
        assertTrue(said.get(1).startsWith("5 path-lamp is not opened to path-lamp"), said::toString);
        assertTrue(said.get(2).startsWith("7 there is no environment tset"), said::toString);
        assertTrue(
                checked.path("warnings").valueStream()
                        .anyMatch(each -> each.path("message").asString()
                                .equals("WICK was not given to path-lamp: paseo secret grant path-lamp WICK")),
                checked::toString);
    }
}
