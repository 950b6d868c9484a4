package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.Movement;
import dev.paseo.core.deployment.Plan;
import dev.paseo.core.deployment.Strategy;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Hours;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.StoredRules;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

/** What is stored is read by every release from here on: these files never change. */
class StoredShapesTest {

    private final Json json = new Json(JsonMapper.builder()
            .changeDefaultPropertyInclusion(inclusion -> inclusion
                    .withValueInclusion(com.fasterxml.jackson.annotation.JsonInclude.Include.NON_ABSENT))
            .build());

    private static final Criterion.Approvals APPROVALS = new Criterion.Approvals(
            List.of("approvers"), 2, List.of(Criterion.Exclusion.AUTHORS, Criterion.Exclusion.REQUESTER), true,
            Optional.of(Duration.ofHours(48)), Optional.empty());
    private static final List<HostState> HOSTS = List.of(
            new HostState("north-hut", HostState.Phase.FAILED, true, Optional.of("no answer")),
            HostState.ahead("valley-house"));

    private static DeploymentState deployment(Course course, DeploymentState.Terms terms) {
        return new DeploymentState(7, "1.4.2", 3, 2, Kind.PROMOTION, true, DeploymentStatus.UNDOING, HOSTS,
                DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.PREVIOUS, Optional.of("north-hut: no answer"),
                course, terms);
    }

    private static Environments.PlaceSettings settings(Optional<String> side, Optional<Environments.Ssh> ssh) {
        return new Environments.PlaceSettings(1, Optional.of("http://127.0.0.1:7620"), Map.of("LOG_LEVEL", "warn"),
                Map.of("valley-house", new Environments.HostSettings(Optional.of("http://127.0.0.1:7633"),
                        Map.of("RACK", "left"), side, ssh)),
                List.of("DATA_KEY"), side);
    }

    private static GateRules gate(Criterion.Approvals... approvals) {
        return new GateRules(List.of(approvals), List.of(), Optional.empty(), Optional.empty(), List.of(), List.of());
    }

    private static final Rules RULES = new Rules(Rules.FORMAT,
            Optional.of(new Criterion.Follows(List.of("test", "staging"), true)),
            new Criterion.Origin(List.of("season/*"), List.of("v*"), true),
            new Rules.Gates(
                    new GateRules(
                            List.of(new Criterion.Approvals(List.of("approvers"), 1, List.of(), false, Optional.empty(),
                                    Optional.of(new Criterion.Escalation(Duration.ofHours(1), "operators")))),
                            List.of(new Criterion.Checklist(List.of("testers"), List.of("Old links still work"))),
                            Optional.of(Duration.ofHours(2)),
                            Optional.of(new Hours(ZoneId.of("Europe/Madrid"),
                                    List.of(new Hours.Window(EnumSet.of(DayOfWeek.MONDAY, DayOfWeek.FRIDAY),
                                            new Hours.Span(LocalTime.of(9, 0), LocalTime.of(16, 0)))),
                                    Map.of(LocalDate.of(2026, 12, 24), List.of()))),
                            List.of("tests.failed == 0"),
                            List.of(new Criterion.Outside("change-desk", "http://127.0.0.1/changes",
                                    Optional.empty()))),
                    GateRules.NONE),
            gate(APPROVALS), true, true, Map.of("daylight-api", new Rules.Gates(gate(APPROVALS), GateRules.NONE)),
            Optional.of("BEGIN:VCALENDAR"), Optional.empty());

    @Test
    void rulesOfEarlierReleasesAreRead() throws IOException {
        StoredRules stored = new StoredRules(json);
        Rules plain = new Rules(Rules.FORMAT, Optional.of(new Criterion.Follows(List.of("staging"), false)),
                new Criterion.Origin(List.of("season/*"), List.of(), false),
                new Rules.Gates(gate(APPROVALS), GateRules.NONE), GateRules.NONE, false, false, Map.of(),
                Optional.empty(), Optional.empty());
        assertEquals(plain, stored.read(stored("rules-1.json")));
        assertEquals(new Rules(Rules.FORMAT, plain.follows(), plain.origin(), plain.gates(), gate(APPROVALS), true,
                false, Map.of(), Optional.empty(), Optional.empty()), stored.read(stored("rules-2.json")));
        assertEquals(RULES, stored.read(stored("rules-3.json")), "with the words of the release before");
        assertEquals(Rules.NONE, stored.read("{}"));
        assertEquals(RULES, stored.read(stored.write(RULES)));
    }

    /** What earlier releases wrote, and what is read from it. */
    static Stream<Arguments> earlier() {
        return Stream.of(
                Arguments.of("deployment-1.json", deployment(null, null)),
                Arguments.of("settings-1.json", settings(Optional.empty(), Optional.empty())));
    }

    @ParameterizedTest
    @MethodSource("earlier")
    void whatEarlierReleasesWroteIsRead(String file, Object shape) throws IOException {
        assertEquals(shape, json.read(stored(file), shape.getClass()));
    }

    static Stream<Arguments> shapes() {
        List<Movement> plan = Plan.of(new Plan.Recipe(
                new Strategy.Canary(List.of(new Strategy.Share(10, Duration.ofMinutes(5), Optional.empty(), true)),
                        Duration.ofHours(1)),
                true, true,
                true, Optional.of(Duration.ofMinutes(5)), List.of("acceptance")),
                List.of(new Plan.Host("north-hut", Optional.of("blue"), false),
                        new Plan.Host("valley-house", Optional.of("green"), false)),
                Optional.of("green"));
        Course course = new Course(plan, 2, Optional.of(HostTask.TRAFFIC),
                Optional.of(Instant.parse("2026-05-04T08:00:00Z")), 10,
                new Course.Sides(Optional.of("blue"), Optional.of("green")), 0, true, Optional.empty());
        return Stream.of(
                Arguments.of("deployment-2.json",
                        deployment(course, new DeploymentState.Terms(true, Optional.of(1L), false, Optional.empty()))),
                Arguments.of("rules-4.json", RULES),
                Arguments.of("settings-2.json", settings(Optional.of("blue"), Optional.of(
                        new Environments.Ssh("127.0.0.1", 22, "park", "SHED_KEY", "ssh-ed25519 AAAA", "/srv/park")))));
    }

    private static String stored(String file) throws IOException {
        try (InputStream in = Objects.requireNonNull(StoredShapesTest.class.getResourceAsStream("/stored/" + file),
                file)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        }
    }

    @ParameterizedTest
    @MethodSource("shapes")
    void aStoredShapeIsReadAndWrittenAsItIs(String file, Object shape) throws IOException {
        assertEquals(stored(file), json.write(shape));
        assertEquals(shape, json.read(stored(file), shape.getClass()));
    }
}
