package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.agent.Agent;
import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Walls;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Work of branches that are not trusted goes to agents that have walls and are assigned to it, whatever the branch's
 * file says.
 */
class UntrustedWorkTest {

    private static String invite(Park park, String name) {
        return park.as("admin").post("/api/v1/agents", Map.of("name", name)).good().path("token").asString();
    }

    private static String waitsFor(Park park, long run) {
        return park.run("daylight-api", run).path("stages").path(0).path("waitsFor").asString("");
    }

    private static Map<String, String> spying(Park park) {
        return Map.of("paseo.yaml", """
                paseo: 1
                component: daylight-api
                versions: "1.4.{serial}"
                starts: [{push: [main, "feature/*"]}]
                stages:
                  spy:
                    steps:
                      - "cat '%s/agents/builder/secret' && exit 9; ls '%s' && exit 9; env | grep SPIED && exit 9; \
                echo walled"
                """.formatted(park.folder, park.folder.resolve("hosts")));
    }

    @Test
    void itWaitsForOneAndSaysSo() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder", invite(park, "builder"), Agent.Options.usual(2));
            Repository repository = park.component();
            repository.push("developer", "main", spying(park));
            Await.until("a trusted run passes",
                    () -> park.run("daylight-api", 1).path("run").path("status").asString().equals("passed"));
            repository.push("developer", "feature/spy", Map.of("README", "x"));
            Await.until("the run waits", () -> waitsFor(park, 2).equals(
                    "waits for an agent that runs stages and takes work of branches that are not trusted: none is "
                            + "assigned to it (paseo agent enrol NAME --untrusted)"));
            Park.Said agents = park.paseo("admin", "agent", "list");
            assertTrue(agents.out().contains("stages: files, processes, home"), agents::out);
            assertEquals(0, park.paseo("admin", "agent", "enrol", "builder", "--untrusted").code());
            Await.until("it is carried out",
                    () -> park.run("daylight-api", 2).path("run").path("status").asString().equals("passed"));
            assertTrue(park.paseo("auditor", "audit", "list").out().contains("told which walls it has"));
        }
    }

    @Test
    void anAgentWithoutWallsGetsNoneOfIt() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            Agent.Options bare = new Agent.Options(2, new Walls.WallSettings(false, List.of(), List.of(), true, false),
                    Limits.usual());
            park.startAgent("builder", park.invite("builder"), bare);
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            repository.push("developer", "feature/spy", spying(park));
            Await.until("the run waits", () -> waitsFor(park, 2)
                    .equals("waits for an agent that runs stages and takes work of branches that are not trusted: "
                            + "builder is assigned to it, but its walls do not hold it: none: the agent was started "
                            + "with --without-walls"));
        }
    }

    /** What a branch's recipe names is not what a preview gets: its template names that. */
    @Test
    void aPreviewGetsNoSecretThatItsTemplateDoesNotName() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = PreviewsTest.component(park);
            park.as("admin").put("/api/v1/secrets",
                    Map.of("name", "REPORT_TOKEN", "value", "for-the-whole-component", "component", "daylight-api"))
                    .good();
            repository.push("developer", "main", PreviewsTest.files());
            park.liveIn("test", "1.4.1");
            repository.push("developer", "feature/thief",
                    Map.of("paseo.yaml",
                            PreviewsTest.files().get("paseo.yaml").replace("secrets: [DATA_KEY]",
                                    "secrets: [DATA_KEY, REPORT_TOKEN]"),
                            "deploy/install.sh", PreviewsTest.files().get("deploy/install.sh")
                                    + "echo \"$REPORT_TOKEN\" > \"$PASEO_HOST_FOLDER/stolen\"\n"));
            Await.until("it is told that there is none",
                    () -> park.paseo("auditor", "audit", "list").out().contains("REPORT_TOKEN"));
            assertTrue(Files.notExists(park.hostFolder("valley-house").resolve("stolen")));
        }
    }

    /** A run of the same commit is as trusted as that commit's branch, whatever its own main branch is. */
    @Test
    void theSameCommitOfAFeatureBranchIsNotTrustedDownstream() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.bring("upper", Map.of());
            park.as("release-engineer")
                    .post("/api/v1/components",
                            Map.of("name", "lower", "repository", repository.url(), "file", "lower.yaml",
                                    "trusted", List.of("main"), "allowed", List.of("feature/*"), "secrets", List.of(),
                                    "sources", List.of("upper")))
                    .good();
            String upper = "paseo: 1\ncomponent: upper\nversions: \"1.{serial}\"\nstarts: [{push: [main, "
                    + "\"feature/*\"]}]\nstages: {make: {steps: [echo made > made], keep: {made: made}}}\n";
            String lower = "paseo: 1\ncomponent: lower\nversions: \"2.{serial}\"\nstarts: [{upstream: [upper], "
                    + "branches: [main, \"feature/*\"], same-commit: true}]\n"
                    + "stages: {look: {steps: ['true']}}\n";
            repository.push("developer", "main", Map.of("paseo.yaml", upper, "lower.yaml", lower));
            Await.until("the trusted one passed",
                    () -> park.run("lower", 1).path("run").path("status").asString("").equals("passed"));
            repository.push("developer", "feature/borrowed", Map.of("README", "x"));
            Await.until("the other passed",
                    () -> park.run("lower", 2).path("run").path("status").asString("").equals("passed"));
            assertEquals("feature/borrowed", park.run("lower", 2).path("run").path("branch").asString());
            assertTrue(park.run("lower", 2).path("run").path("version").asString("").contains("feature-borrowed"),
                    () -> park.run("lower", 2).toString());
            repository.push("developer", "main", Map.of("lower.yaml", lower.replace(", same-commit: true", "")
                    .replace("steps:", "take: [{from: upper, version: upstream, into: in}], steps:")));
            Await.until("main took what is trusted",
                    () -> park.run("lower", 3).path("run").path("status").asString("").equals("passed"));
            repository.push("developer", "feature/borrowed", Map.of("README", "y"));
            Await.until("it is told why there is no run", () -> park.as("developer")
                    .get("/api/v1/components/lower/events").body().toString()
                    .contains(
                            "which was not built from a trusted branch; a run of main is trusted, and takes only "
                                    + "what is"));
        }
    }

    /** A feature branch's recipe may change the folder of its host, and nothing else there. */
    @Test
    void aPreviewNeedsOneAndItsRecipeStaysInItsHostsFolder() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            for (String agent : List.of("builder", "test-1")) {
                park.startAgent(agent);
            }
            park.startAgent("valley-house",
                    park.as("admin").post("/api/v1/agents", Map.of("name", "valley-house", "host", "valley-house"))
                            .good().path("token").asString(),
                    Agent.Options.usual(2));
            Repository repository = PreviewsTest.component(park);
            Path elsewhere = Files.writeString(park.folder.resolve("elsewhere"), "as it was");
            Map<String, String> files = PreviewsTest.files();
            files.put("deploy/install.sh",
                    files.get("deploy/install.sh") + "echo planted > '" + elsewhere + "' || true\n");
            repository.push("developer", "main", files);
            park.liveIn("test", "1.4.1");
            repository.push("developer", "feature/night", Map.of("health", "dark"));
            Await.until("it is told that there is none", () -> park.paseo("auditor", "audit", "list").out()
                    .contains(
                            "valley-house is not assigned to work of branches that are not trusted (paseo agent "
                                    + "enrol valley-house --host valley-house --untrusted)"));
            assertEquals(0, park
                    .paseo("admin", "agent", "enrol", "valley-house", "--host", "valley-house", "--untrusted").code());
            Files.writeString(elsewhere, "as it was");
            repository.push("developer", "feature/night", Map.of("health", "darker"));
            Await.until("it is live", () -> park.as("developer").get("/api/v1/previews").body().path(0).path("status")
                    .asString("").equals("live"));
            assertEquals("as it was", Files.readString(elsewhere));
        }
    }
}
