package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.service.environment.Environments;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

/** What is stored in format 1 is read by every release from here on: these files never change. */
class StoredShapesTest {

    private final Json json = new Json(JsonMapper.builder()
            .changeDefaultPropertyInclusion(inclusion -> inclusion.withValueInclusion(com.fasterxml.jackson.annotation.JsonInclude.Include.NON_ABSENT)).build());

    static Stream<Arguments> shapes() {
        return Stream.of(
                Arguments.of("deployment-1.json", new DeploymentState(7, "1.4.2", 3, 2, Kind.PROMOTION, true, DeploymentStatus.UNDOING,
                        List.of(new HostState("north-quay", HostState.Phase.FAILED, true, Optional.of("no answer")), HostState.ahead("lighthouse")),
                        DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.PREVIOUS, Optional.of("north-quay: no answer"))),
                Arguments.of("rules-1.json", new Environments.Rules(1, Optional.of("staging"), List.of("season/*"), Optional.of(new Criterion.Approvals(
                        "approvers", 2, List.of(Criterion.Exclusion.AUTHORS, Criterion.Exclusion.REQUESTER), true, Optional.of(Duration.ofHours(48)))))),
                Arguments.of("settings-1.json", new Environments.Settings(1, Optional.of("http://127.0.0.1:7620"), Map.of("LOG_LEVEL", "warn"),
                        Map.of("lighthouse", new Environments.HostSettings(Optional.of("http://127.0.0.1:7633"), Map.of("RACK", "left"))), List.of("DATA_KEY"))));
    }

    @ParameterizedTest
    @MethodSource("shapes")
    void aStoredShapeIsReadAndWrittenAsItIs(String file, Object shape) throws IOException {
        try (InputStream in = Objects.requireNonNull(StoredShapesTest.class.getResourceAsStream("/stored/" + file), file)) {
            String stored = new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
            assertEquals(shape, json.read(stored, shape.getClass()));
            assertEquals(stored, json.write(shape));
        }
    }
}
