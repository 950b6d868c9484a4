package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * The service's disk is full: whoever sends something hears so, nothing is half there, and all goes on when there is
 * room.
 */
class FullDiskTest {

    private static final byte[] BYTES = "high above the path\n".repeat(60_000).getBytes(StandardCharsets.UTF_8);

    private static boolean run(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start().waitFor() == 0;
    }

    private static long upload(Park park, String number) {
        return asked(park, "sawmill", number).good().path("id").asLong();
    }

    private static Client.Answer asked(Park park, String component, String number) {
        return park.as("release-engineer").post("/api/v1/components/" + component + "/uploads",
                Map.of("number", number, "files", List.of(Map.of("kind", "artifact", "name", "app",
                        "fileName", "app.bin", "size", BYTES.length, "digest", Registry.sha256(BYTES).substring(7)))));
    }

    private static void uploaded(Park park, String component) {
        park.as("release-engineer")
                .post("/api/v1/components",
                        Map.of("name", component, "text",
                                "paseo: 1\ncomponent: " + component + "\nversions: \"1.{serial}\"\n",
                                "trusted", List.of("main"), "allowed", List.of(), "secrets", List.of()))
                .good();
    }

    private static JsonNode kept(Park park, String component) {
        return park.as("developer").get("/api/v1/components/" + component).good().path("kept");
    }

    private static long files(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile).count();
        }
    }

    /**
     * A quota by component: told at 80 %, then refused before a byte is sent; a run fails with the reason; others go
     * on.
     */
    @Test
    void aComponentKeepsNoMoreThanItMay() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.kept-per-component=1400kB");
            park.accounts();
            park.startAgent("builder");
            uploaded(park, "sawmill");
            uploaded(park, "quarry");
            long first = upload(park, "1.0");
            park.as("release-engineer").bytes("/api/v1/uploads/" + first + "/files/artifact/app", 0, BYTES).good();
            park.as("release-engineer").post("/api/v1/uploads/" + first + "/seal", Map.of()).good();
            assertEquals(BYTES.length, kept(park, "sawmill").path("bytes").asLong());
            String nearly = "sawmill has 1.2 MB kept, of 1.4 MB that it may";
            assertTrue(kept(park, "sawmill").path("nearly").asString().startsWith(nearly),
                    () -> kept(park, "sawmill").toString());
            assertTrue(park.paseo("developer", "list", "components").out().contains("nearly full: " + nearly));
            for (String keeper : List.of("admin", "release-engineer")) {
                Await.until(keeper + " is told",
                        () -> park.as(keeper).get("/api/v1/notices").good().path("notices").valueStream()
                                .anyMatch(notice -> notice.path("event").asString().equals("nearly-full")
                                        && notice.path("body").asString().contains(nearly)));
            }
            Client.Answer refused = asked(park, "sawmill", "1.1");
            assertEquals(413, refused.status(), () -> refused.body().toString());
            assertEquals(nearly + "; 1.2 MB more are too many: an operator allows more in paseo.kept-per-component",
                    refused.detail());
            assertEquals(201, asked(park, "quarry", "1.0").status(), "another component is none the worse");
            Repository repository = park.bring("kiln", Map.of());
            repository.push("developer", "main",
                    Map.of("paseo.yaml",
                            StartingTest.pipeline("kiln", "- push: [main]")
                                    .replace("mkdir -p out;", "mkdir -p out; head -c 1600000 /dev/zero > out/kiln.txt;")
                                    .replace(") > out", ") >> out")));
            JsonNode run = park.runEnds("kiln", 1);
            assertEquals("failed", run.path("run").path("status").asString());
            assertTrue(
                    run.toString()
                            .contains("1.6 MB more are too many: an operator allows more in paseo.kept-per-component"),
                    run::toString);
        }
    }

    @Test
    void whoSendsHearsSoAndNothingIsHalfThere() throws Exception {
        try (Park park = new Park()) {
            Path data = Files.createDirectories(park.folder.resolve("data"));
            assumeTrue(run("mount", "-t", "tmpfs", "-o", "size=4m", "tmpfs", data.toString()),
                    "this user cannot make a disk");
            park.closeToo(() -> run("umount", "-l", data.toString()));
            park.startService();
            park.accounts();
            uploaded(park, "sawmill");
            Path ballast = data.resolve("ballast");
            try (var out = Files.newOutputStream(ballast)) {
                while (true) {
                    out.write(new byte[4096]);
                }
            } catch (IOException full) {
                assertTrue(full.getMessage().contains("No space"), full::getMessage);
            }
            long id = upload(park, "1.0");
            Client.Answer refused = park.as("release-engineer").bytes("/api/v1/uploads/" + id + "/files/artifact/app",
                    0, BYTES);
            assertEquals(507, refused.status(), () -> refused.body().toString());
            assertEquals("The service's disk is full. Nothing was half done: try again when there is room.",
                    refused.detail());
            assertEquals(0, files(data.resolve("bytes")), "something is kept that did not come whole");
            assertEquals(200, park.as("developer").get("/api/v1/components").status(),
                    "whoever only looks is answered");
            Files.delete(ballast);
            int received = park.as("release-engineer").get("/api/v1/uploads/" + id).good().path("files").path(0)
                    .path("received").asInt();
            assertTrue(received < BYTES.length, "all " + received + " bytes found room");
            park.as("release-engineer").bytes("/api/v1/uploads/" + id + "/files/artifact/app", received,
                    Arrays.copyOfRange(BYTES, received, BYTES.length)).good();
            assertTrue(park.as("release-engineer").post("/api/v1/uploads/" + id + "/seal", Map.of()).good()
                    .path("fresh").asBoolean(), "what came before the disk was full counts");
        }
    }
}
