package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;

/** What starts what, across components, and why it did or did not. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class StartingTest {

    private Park park;

    @BeforeAll
    void open() throws Exception {
        park = Park.open();
    }

    @AfterAll
    void close() {
        park.close();
    }

    /**
     * A component whose build writes down what it was built from; it fails where its commit holds a file {@code
     * broken}.
     */
    static String pipeline(String name, String starts, String... takes) {
        StringBuilder text = new StringBuilder(
                "paseo: 1\ncomponent: " + name + "\nversions: \"1.{serial}\"\nstarts:\n" + starts.indent(2)
                        + "stages:\n  build:\n");
        if (takes.length > 0) {
            text.append("    take:\n");
            for (String from : takes) {
                text.append("      - {from: ").append(from).append(", artifact: out, version: upstream, into: in/")
                        .append(from).append("}\n");
            }
        }
        return text + "    steps: ['test ! -e broken', 'mkdir -p out; (echo \"" + name
                + " $PASEO_VERSION\"; cat in/*/* 2>/dev/null || true) > out/" + name + ".txt']\n"
                + "    keep: {out: out/" + name + ".txt}\n";
    }

    private Repository bring(String name, List<String> sources) throws Exception {
        return park.bring(name, Map.of("sources", sources, "trusted", List.of("main", "season/*")));
    }

    private List<JsonNode> events(String component) {
        return StreamSupport
                .stream(park.as("developer").get("/api/v1/components/" + component + "/events").body().spliterator(),
                        false)
                .toList();
    }

    /** The runs of a component that have ended, once there are this many. */
    private List<JsonNode> runs(String component, int count) {
        Await.until(component + " has " + count + " runs that ended", () -> {
            List<JsonNode> all = listed(component);
            return all.size() == count && all.stream().allMatch(run -> run.has("endedAt"));
        });
        return listed(component);
    }

    private List<JsonNode> listed(String component) {
        return StreamSupport.stream(
                park.as("developer").get("/api/v1/runs?component=" + component).body().path("runs").spliterator(),
                false).toList();
    }

    private String text(String component, String version) throws Exception {
        return park.as("developer").text("/api/v1/versions/" + component + "/" + version + "/artifacts/out");
    }

    /** Waits until this event was considered, and gives what a component's trigger made of it. */
    private JsonNode considered(String component, String sentence) {
        Await.until(component + " considered: " + sentence, () -> find(component, sentence) != null);
        return find(component, sentence);
    }

    private JsonNode find(String component, String sentence) {
        return events(component).stream().filter(event -> event.path("sentence").asString().contains(sentence))
                .flatMap(event -> StreamSupport.stream(event.path("considered").spliterator(), false))
                .filter(each -> each.path("component").asString().equals(component)).findFirst().orElse(null);
    }

    private List<String> reasons(String component, String sentence) {
        return events(component).stream().filter(event -> event.path("sentence").asString().contains(sentence))
                .flatMap(event -> StreamSupport.stream(event.path("considered").spliterator(), false))
                .map(each -> each.path("reason").asString("")).toList();
    }

    @Test
    void aRunUpstreamStartsTheOneDownstreamWithItsVeryArtifact() throws Exception {
        Repository model = bring("model", List.of());
        Repository api = bring("api", List.of("model"));
        api.push("developer", "main", Map.of("paseo.yaml", pipeline("api", "- upstream: model", "model")));
        assertEquals(0, listed("api").size());
        assertEquals("this was a push", find("api", "push").path("reason").asString());
        model.push("developer", "main", Map.of("paseo.yaml", pipeline("model", "- push: [main]")));
        JsonNode run = runs("api", 1).getFirst();
        assertEquals("passed", run.path("status").asString());
        assertEquals("api 1.1\nmodel 1.1\n", text("api", "1.1"));
        List<JsonNode> causes = StreamSupport.stream(park.run("api", 1).path("causes").spliterator(), false).toList();
        assertEquals("run model#1", causes.get(0).path("sentence").asString());
        assertTrue(causes.get(1).path("sentence").asString().startsWith("push "), causes.toString());

        model.push("developer", "main", Map.of("broken", "yes"));
        JsonNode failed = considered("api", "model#2 ended failed");
        assertEquals("the run ended failed", failed.path("reason").asString());
        assertEquals(1, listed("api").size());
        api.push("developer", "main", Map.of("paseo.yaml", pipeline("api", "- upstream: model\n  outcomes: [failed]")));
        model.push("developer", "main", Map.of("note", "still broken"));
        assertEquals(2, considered("api", "model#3 ended failed").path("run").asInt());
        runs("api", 2);
        JsonNode led = park.as("developer").get("/api/v1/runs/model/3/consequences").body();
        assertEquals("api", led.path(0).path("component").asString());
        JsonNode nothing = park.as("developer").get("/api/v1/runs/model/2/consequences").body();
        assertEquals("nothing", nothing.path(0).path("kind").asString());
        assertEquals("the run ended failed", nothing.path(0).path("reason").asString());
    }

    @Test
    void aDiamondStartsOneRunOfVersionsThatAgree() throws Exception {
        Repository root = bring("root", List.of());
        Repository left = bring("left", List.of("root"));
        Repository right = bring("right", List.of("root"));
        Repository tip = bring("tip", List.of("left", "right"));
        left.push("developer", "main", Map.of("paseo.yaml", pipeline("left", "- upstream: root", "root")));
        right.push("developer", "main", Map.of("paseo.yaml", pipeline("right", "- upstream: root", "root")));
        tip.push("developer", "main",
                Map.of("paseo.yaml", pipeline("tip", "- upstream: [left, right]\n  new: consistent", "left", "right")));
        for (int change = 1; change <= 3; change++) {
            root.push("developer", "main", change == 1 ? Map.of("paseo.yaml", pipeline("root", "- push: [main]"))
                    : Map.of("note", "change " + change));
            runs("tip", change);
            String text = text("tip", "1." + change);
            assertEquals("tip 1." + change + "\nleft 1." + change + "\nroot 1." + change + "\nright 1." + change
                    + "\nroot 1." + change + "\n", text);
        }
        List<String> reasons = new ArrayList<>();
        events("tip").forEach(event -> event.path("considered")
                .forEach(each -> each.path("reason").asStringOpt().ifPresent(reasons::add)));
        assertEquals(3, reasons.stream().filter(reason -> !reason.equals("this was a push")).count(),
                reasons.toString());
    }

    @Test
    void cyclesAreFoundWhenTheyAreSaved() throws Exception {
        Repository hen = bring("hen", List.of());
        Repository egg = bring("egg", List.of());
        hen.push("developer", "main", Map.of("paseo.yaml", pipeline("hen", "- upstream: egg\n- push: [main]")));
        String said = egg.push("developer", "main",
                Map.of("paseo.yaml", pipeline("egg", "- upstream: hen\n- push: [main]")));
        assertTrue(said.contains("would make a cycle: egg starts hen starts egg"), said);
        assertEquals(0, listed("egg").size());
        runs("hen", 1);
    }

    @Test
    void pathsAndTagsAndTheSecondName() throws Exception {
        Repository gauge = bring("gauge", List.of());
        gauge.push("developer", "main", Map.of("paseo.yaml",
                pipeline("gauge", "- push: [main]\n  paths: [\"service/**\", paseo.yaml]\n- tag: \"v*\"")));
        runs("gauge", 1);
        String said = gauge.push("developer", "main", Map.of("README", "words"));
        assertTrue(said.contains("none of service/**, paseo.yaml changed since the last started commit, but README"),
                said);
        gauge.push("developer", "main", Map.of("service/a", "code"));
        runs("gauge", 2);
        gauge.tag("v1");
        String second = gauge.push("developer", "main", Map.of("README", "more words"));
        considered("gauge", "tag v1");
        assertTrue(
                reasons("gauge", "tag v1").contains("its commit is sealed already: v1 is a second name of gauge 1.2"),
                reasons("gauge", "tag v1").toString());
        assertTrue(second.contains("started nothing of gauge for main"), second);
        assertEquals("1.2", park.as("developer").get("/api/v1/versions/gauge/v1").good().path("number").asString());
        gauge.tag("v2");
        gauge.push("developer", "season/spring", Map.of("README", "of spring"));
        considered("gauge", "tag v2");
        runs("gauge", 3);
    }

    @Test
    void aTagGivesItsNumberAndTheSameTwiceIsRefusedAtTheStart() throws Exception {
        Repository horn = bring("horn", List.of());
        horn.push("developer", "main", Map.of("paseo.yaml",
                pipeline("horn", "- tag: \"v*\"").replaceFirst("versions: .*", "versions: \"{tag}\"")));
        horn.git("tag", "another");
        horn.git("tag", "v1.0");
        horn.git("push", "-q", "origin", "another", "v1.0");
        assertEquals("v1.0", runs("horn", 1).getFirst().path("version").asString(),
                "of two tags the one that started it");
        horn.push("developer", "main", Map.of("README", "louder"));
        horn.tag("v1.1");
        assertEquals("v1.1", runs("horn", 2).getFirst().path("version").asString());
        Client.Answer again = park.as("developer").post("/api/v1/runs/horn/2/repetition", Map.of());
        assertEquals(409, again.status());
        assertEquals("Version v1.1 of horn is sealed already; versions never change, so the pattern {tag} cannot give "
                + "this number again", again.detail());
        assertEquals(2, listed("horn").size());
    }

    @Test
    void aTriggerIsInForceForTheVeryNextEvent() throws Exception {
        Repository ridge = bring("ridge", List.of());
        Repository lamp = bring("lamp", List.of());
        lamp.push("developer", "main", Map.of("paseo.yaml", pipeline("lamp", "- push: [nothing]")));
        ridge.push("developer", "main", Map.of("paseo.yaml", pipeline("ridge", "- push: [main]")));
        runs("ridge", 1);
        Await.until("what follows from the run is done", () -> undone() == 0);
        lamp.push("developer", "main", Map.of("paseo.yaml", pipeline("lamp", "- upstream: ridge")));
        ridge.push("developer", "main", Map.of("note", "again"));
        assertEquals("upstream", pipelineCause(runs("lamp", 1).getFirst()));
        lamp.push("developer", "main", Map.of("paseo.yaml", "paseo: 1\ncomponent: lamp\nstarts: oops\n"));
        ridge.push("developer", "main", Map.of("note", "and again"));
        assertTrue(considered("lamp", "ridge#3 ended passed").path("reason").asString().startsWith("paseo.yaml:"));
    }

    private int undone() {
        try {
            return Integer.parseInt(park.database
                    .as("select count(*) from effect where kind = 'run-ended' and done_at is null").strip());
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            return -1;
        }
    }

    private static String pipelineCause(JsonNode run) {
        return run.path("status").asString().equals("passed") ? "upstream" : run.toString();
    }

    @Test
    void componentsOfOneRepositoryShareItsHookAndItsCommit() throws Exception {
        Repository shore = bring("shore", List.of());
        park.as("release-engineer")
                .post("/api/v1/components",
                        Map.of("name", "shore-map", "repository", shore.url(), "file", "map/paseo.yaml",
                                "trusted", List.of("main"), "allowed", List.of(), "secrets", List.of(), "sources",
                                List.of("shore")))
                .good();
        Map<String, String> files = new LinkedHashMap<>();
        files.put("paseo.yaml", pipeline("shore", "- push: [main]"));
        files.put("map/paseo.yaml", pipeline("shore-map", "- upstream: shore\n  same-commit: true", "shore"));
        shore.push("developer", "main", files);
        runs("shore", 1);
        assertEquals(shore.head(), runs("shore-map", 1).getFirst().path("commit").asString());
        assertEquals("shore-map 1.1\nshore 1.1\n", text("shore-map", "1.1"));
    }

    private void due(String component, String ago) throws Exception {
        park.database.as("update start_trigger set next_at = utc_timestamp(6) - interval " + ago
                + " where component_id = (select id from component where name = '" + component + "')");
    }

    @Test
    void aClockStrikesLateOnesOnceAndMissedOnesAreTold() throws Exception {
        Repository tower = bring("tower", List.of());
        tower.push("developer", "main",
                Map.of("paseo.yaml", pipeline("tower", "- clock: \"0 2 * * *\"\n  zone: Europe/Madrid")));
        assertEquals(0, listed("tower").size());
        due("tower", "10 minute");
        JsonNode run = runs("tower", 1).getFirst();
        assertEquals("passed", run.path("status").asString());
        assertTrue(park.run("tower", 1).path("causes").path(0).path("sentence").asString()
                .equals("clock 0 2 * * * (Europe/Madrid) of tower"));
        due("tower", "3 hour");
        Await.until("the missed one is told",
                () -> events("tower").getFirst().path("sentence").asString().endsWith("Europe/Madrid, missed"));
        assertEquals("the service was away at that time, and it is too long ago to be made up for",
                reasons("tower", ", missed").getFirst());
        assertEquals(1, listed("tower").size());
        String next = park.database.as(
                "select count(*) from start_trigger where next_at > utc_timestamp(6) and next_at < utc_timestamp(6) "
                        + "+ interval 25 hour and kind = 'clock'")
                .strip();
        assertEquals("1", next);
    }

    @Test
    void whatTheClientSaysOfCausesBothWays() throws Exception {
        Repository spring = bring("spring", List.of());
        Repository brook = bring("brook", List.of("spring"));
        brook.push("developer", "main", Map.of("paseo.yaml", pipeline("brook", "- upstream: spring", "spring")));
        spring.push("developer", "main", Map.of("paseo.yaml", pipeline("spring", "- push: [main]")));
        runs("brook", 1);
        String commit = spring.head().substring(0, 8);
        String why = park.paseo("developer", "why", "brook#1").out();
        assertTrue(
                why.contains("because of run spring#1")
                        && why.contains("because of push " + commit.substring(0, 7) + " to spring main by developer"),
                why);
        String forward = park.paseo("developer", "why", "spring", commit, "--forward").out();
        assertTrue(forward.matches(
                "(?s)spring: push .* led to\\R  spring#1 passed, 1.1 on main.*\\R    brook#1 passed, 1.1 on main.*"),
                forward);
        assertTrue(park.paseo("developer", "why", "brook#1", "--forward").out()
                .contains("led to nothing: no trigger waits for it"));
        assertTrue(park.paseo("developer", "component", "events", "brook").out().contains("spring#1 ended passed"));
        assertEquals(1, park.paseo("developer", "why", "brooks").code());
        assertEquals(400, park.as("developer").get("/api/v1/components/brook/events?commit=zz").status());
        assertEquals(404, park.as("developer").get("/api/v1/components/brook/events/99999").status());
        assertEquals(404, park.as("developer").get("/api/v1/runs/brook/99/consequences").status());
        JsonNode chain = park.as("developer").get("/api/v1/chain").good();
        JsonNode edge = StreamSupport.stream(chain.path("edges").spliterator(), false)
                .filter(each -> each.path("downstream").asString().equals("brook")).findFirst().orElseThrow();
        assertEquals("spring", edge.path("upstream").asString());
        assertEquals(1, edge.path("last").path("run").asInt());
        assertEquals("passed", edge.path("last").path("status").asString());
    }
}
