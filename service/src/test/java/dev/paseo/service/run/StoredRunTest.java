package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageState.Skip;
import dev.paseo.core.run.StageState;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.StageDependencies;
import dev.paseo.service.database.Json;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** Runs that any release stored are read by this one; these files never change. */
class StoredRunTest {

    private final Json json = StoredRunTest.json();

    private static Json json() {
        return new Json(JsonMapper.builder().changeDefaultPropertyInclusion(
                inclusion -> inclusion.withValueInclusion(JsonInclude.Include.NON_ABSENT)).build());
    }

    private static String stored(String file) throws IOException {
        try (InputStream in = Objects.requireNonNull(StoredRunTest.class.getResourceAsStream("/stored/" + file),
                file)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        }
    }

    private static StageState stage(StageKey key, StageDependencies waits, int attempt, StageStatus status,
            Optional<Skip> skip,
            Optional<String> reason) {
        return new StageState(key, waits, attempt, List.of("app"), false, Optional.empty(), status, skip, reason);
    }

    @Test
    void formatOneIsReadAsWhatItMeant() throws IOException {
        StageState compile = new StageState(StageKey.of("compile"), StageDependencies.on(), 1, List.of("app"), false,
                Optional.empty(), StageStatus.PASSED,
                Optional.empty(), Optional.empty());
        StageState tests = new StageState(new StageKey("unit-tests", "UTC"),
                StageDependencies.on(StageKey.of("compile")), 2,
                List.of(), false, Optional.empty(),
                StageStatus.FAILED, Optional.empty(), Optional.of("lost: gone"));
        assertEquals(new RunState(RunStatus.RUNNING, List.of(compile, tests), List.of("app"), true, Optional.of("why")),
                StoredRun.read(json, 1, stored("run-1.json")));
    }

    @Test
    void formatTwoIsReadAndWrittenAsItIs() throws IOException {
        StageKey compile = StageKey.of("compile");
        RunState run = new RunState(RunStatus.CANCELLING, List.of(
                stage(compile, StageDependencies.on(), 1, StageStatus.FAILED, Optional.empty(),
                        Optional.of("exit status 1"))
                        .tolerated(),
                stage(new StageKey("unit-tests", "UTC"), StageDependencies.on(compile), 2, StageStatus.SKIPPED,
                        Optional.of(Skip.UNATTAINABLE), Optional.of("why not")),
                stage(StageKey.of("tidy"), new StageDependencies(List.of(), List.of(compile), List.of(compile)), 1,
                        StageStatus.WAITING, Optional.empty(), Optional.empty())
                        .notWanted("wanted-if: branch == 'main'")),
                List.of("app"), true, Optional.of("cancelled by developer"));
        assertEquals(stored("run-2.json"), json.write(run));
        assertEquals(run, StoredRun.read(json, 2, stored("run-2.json")));
    }

    @Test
    void aFormatOfALaterReleaseIsNotGuessedAt() {
        assertThrows(IllegalStateException.class, () -> StoredRun.read(json, 3, "{}"));
    }
}
