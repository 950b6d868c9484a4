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

    private static final String FILE = "paseo: 1\ncomponent: quay-lamp\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages: {light: {steps: [%s], keep: {lamp: lamp}}}\n";
    private static Harbour harbour;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        harbour = new Harbour();
        harbour.startService();
        harbour.accounts();
        harbour.startAgent("builder");
        repository = harbour.bring("quay-lamp", Map.of("links", Map.of("Runbook", "https://harbour.example/lamp")));
        repository.push("developer", "main", Map.of("paseo.yaml", FILE.formatted("echo 1 > lamp"), "Makefile", "all:\n\ttrue\ntest:\n\ttrue\n"));
        harbour.runEnds("quay-lamp", 1);
    }

    @AfterAll
    static void close() {
        harbour.close();
    }

    private static Client engineer() {
        return harbour.as("release-engineer");
    }

    @Test
    void aDraftSaysWhatIsThereAndOffersAnotherNameWhereItIsTaken() throws Exception {
        JsonNode there = engineer().post("/api/v1/drafts", Map.of("component", "quay-lamp", "repository", repository.url())).good();
        assertTrue(there.path("there").asBoolean());
        assertEquals("quay-lamp-2", there.path("free").asString());
        Repository bare = new Repository(harbour.folder.resolve("repositories"), "bare");
        bare.push("developer", "main", Map.of("Makefile", "all:\n\ttrue\ncheck:\n\ttrue\n"));
        JsonNode drafted = engineer().post("/api/v1/drafts", Map.of("component", "bell", "repository", bare.url())).good();
        assertTrue(drafted.path("text").asString().contains("make check"), drafted::toString);
        assertTrue(!drafted.has("free"));
        assertEquals(403, engineer().post("/api/v1/drafts", Map.of("component", "bell", "repository", "file:///etc")).status());
        Client.Answer taken = engineer().post("/api/v1/components", Map.of("name", "quay-lamp", "repository", bare.url(), "trusted", List.of(), "allowed", List.of(), "secrets", List.of()));
        assertEquals("there is a component named quay-lamp already; quay-lamp-2 is free", taken.detail());
    }

    @Test
    void linksAreKeptAndAnAddressThatIsNoneIsTold() {
        assertEquals("https://harbour.example/lamp", engineer().get("/api/v1/components/quay-lamp").good().path("links").path(0).path("address").asString());
        assertEquals(400, engineer().put("/api/v1/components/quay-lamp/links", Map.of("Bad", "javascript:alert(1)")).status());
        assertEquals(403, harbour.as("auditor").put("/api/v1/components/quay-lamp/links", Map.of()).status());
    }

    @Test
    void labelsAreKeptAndWhereaboutsAreGroupedByThem() {
        assertEquals(400, engineer().put("/api/v1/components/quay-lamp/labels", Map.of("Team", "pilots")).status());
        assertEquals(400, engineer().put("/api/v1/components/quay-lamp/labels", Map.of("team", " ")).status());
        assertEquals(403, harbour.as("auditor").put("/api/v1/components/quay-lamp/labels", Map.of()).status());
        Harbour.Said said = harbour.paseo("release-engineer", "component", "labels", "quay-lamp", "--label", "team=pilots", "--label", "tier=public");
        assertEquals("quay-lamp has the labels team=pilots, tier=public.\n", said.out());
        assertEquals("pilots", engineer().get("/api/v1/whereabouts?component=quay-lamp").good().path("rows").path(0).path("labels").path("team").asString());
        assertTrue(harbour.paseo("developer", "where", "--group-by", "team").out().contains("\n\nteam pilots\nquay-lamp "), () -> harbour.paseo("developer", "where", "--group-by", "team").out());
        assertTrue(harbour.paseo("developer", "where", "--label", "team=bakers").out().startsWith("No component has this label"));
        assertEquals("quay-lamp has no labels.\n", harbour.paseo("release-engineer", "component", "labels", "quay-lamp").out());
    }

    @Test
    void aBadgeIsSeenByWhoeverHasItsAddressAndByNobodyElse() throws Exception {
        String address = harbour.as("developer").get("/api/v1/components/quay-lamp/badge").good().path("address").asString();
        String path = URI.create(address).getRawPath() + "?" + URI.create(address).getRawQuery();
        assertTrue(open(path).body().contains("aria-label=\"quay-lamp main: passed\""), open(path)::body);
        assertEquals(404, open(path.replaceFirst("/badges/[^/]+", "/badges/guess")).statusCode());
        assertTrue(open(path.replaceFirst("branch=.*", "branch=%3Cscript%3E")).body().contains("&lt;script&gt;: no run"));
    }

    private static HttpResponse<String> open(String path) throws Exception {
        return HttpClient.newHttpClient().send(HttpRequest.newBuilder(URI.create(harbour.address() + path)).build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void runsAreComparedWithEachOther() throws Exception {
        repository.push("developer", "main", Map.of("paseo.yaml", FILE.formatted("echo 2 > lamp")));
        harbour.runEnds("quay-lamp", 2);
        JsonNode compared = harbour.as("developer").get("/api/v1/runs/quay-lamp/2/comparison?with=1").good();
        assertEquals("Change paseo.yaml", compared.path("commits").path(0).path("summary").asString());
        assertEquals("lamp", compared.path("artifacts").path(0).path("name").asString());
        assertEquals("passed", compared.path("stages").path(0).path("after").asString());
    }

    @Test
    void aCheckKnowsWhatIsHere() {
        String text = """
                paseo: 1
                component: quay-lamp
                stages:
                  light: {take: [{from: quay-lampp}], steps: [a]}
                  glow: {take: [{from: quay-lamp}], steps: [a], secrets: [WICK]}
                deployment: {on-each-host: [a]}
                route: [{tset: automatic}]
                """;
        JsonNode checked = harbour.as("developer").post("/api/v1/components/quay-lamp/pipeline/check", Map.of("text", text)).good();
        List<String> said = checked.path("problems").valueStream().map(problem -> problem.path("line").asInt() + " " + problem.path("message").asString()).toList();
        assertEquals("4 there is no component quay-lampp; did you mean quay-lamp?", said.get(0));
        assertTrue(said.get(1).startsWith("5 quay-lamp is not opened to quay-lamp"), said::toString);
        assertTrue(said.get(2).startsWith("7 there is no environment tset"), said::toString);
        assertTrue(checked.path("warnings").path(0).path("message").asString().startsWith("WICK was not given to quay-lamp"), checked::toString);
    }
}
