package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SurroundingsTest {

    private static final Instant MORNING = Instant.parse("2026-05-04T08:00:00Z");

    private static Surroundings surroundings(boolean rollback, Optional<Surroundings.Hold> hold,
            Optional<Surroundings.Closure> closure, Optional<Surroundings.Closure> period,
            Map<String, String> requires, Map<String, String> beside) {
        return new Surroundings("production", ZoneId.of("Europe/Madrid"), "1.4.2", rollback, hold, closure, period,
                requires, beside, Optional.empty());
    }

    @Test
    void aHoldIsToldInTheZoneOfTheEnvironment() {
        assertEquals(Optional.of("Held by release-engineer since 4 May 2026 10:00 CEST: \"rolled back\"."),
                surroundings(false,
                        Optional.of(new Surroundings.Hold("rolled back", "release-engineer", MORNING)),
                        Optional.empty(), Optional.empty(), Map.of(), Map.of()).around().held());
    }

    @Test
    void whatSomebodyClosedComesBeforeTheCalendarAndEndsWhenTheySaid() {
        Surroundings.Closure closed = new Surroundings.Closure("the snow", Optional.of("operator"), Optional.empty());
        Surroundings.Closure period = new Surroundings.Closure("Easter", Optional.empty(), Optional.of(MORNING));
        assertEquals(
                Optional.of(new GateFacts.Closed("production is closed by operator: \"the snow\".", Optional.empty())),
                surroundings(false, Optional.empty(), Optional.of(closed), Optional.of(period), Map.of(), Map.of())
                        .around().closed());
        assertEquals(
                Optional.of(new GateFacts.Closed("production is closed until 4 May 2026 10:00 CEST: \"Easter\".",
                        Optional.of(MORNING))),
                surroundings(false, Optional.empty(), Optional.empty(), Optional.of(period), Map.of(), Map.of())
                        .around().closed());
        assertEquals(Optional.empty(),
                surroundings(false, Optional.empty(), Optional.empty(), Optional.empty(), Map.of(), Map.of()).around()
                        .closed());
    }

    @ParameterizedTest(name = "{0} in {1}: {2}")
    @CsvSource({"2.3.1, >=2.3 <3, true", "2.2.9, >=2.3 <3, false", "3.0.0, >=2.3 <3, false", "2.3, ^2.3.0, true",
            "v2.4.0, ^2.3.0, true", "summer, >=0, false", ", >=0, false"})
    void whatAVersionNeedsBesideItIsLiveInItsRange(String live, String range, boolean met) {
        Optional<String> there = Optional.ofNullable(live);
        assertEquals(List.of(new GateFacts.Requirement("map-tiles", range, there, met)),
                surroundings(false, Optional.empty(), Optional.empty(), Optional.empty(),
                        Map.of("map-tiles", range), there.map(number -> Map.of("map-tiles", number)).orElse(Map.of()))
                        .around().requirements());
    }

    @Test
    void whatGoesBackNeedsNothingBesideIt() {
        assertEquals(List.of(), surroundings(true, Optional.empty(), Optional.empty(), Optional.empty(),
                Map.of("map-tiles", ">=9"), Map.of()).around().requirements());
    }

    @Test
    void aVersionDoesNotWaitForItself() {
        Surroundings plain = surroundings(false, Optional.empty(), Optional.empty(), Optional.empty(), Map.of(),
                Map.of());
        assertEquals(Optional.of("1.4.1"), tested(plain, "1.4.1"));
        assertEquals(Optional.empty(), tested(plain, "1.4.2"));
    }

    private static Optional<String> tested(Surroundings plain, String number) {
        return new Surroundings(plain.environment(), plain.zone(), plain.version(), false, Optional.empty(),
                Optional.empty(), Optional.empty(), Map.of(), Map.of(), Optional.of(number))
                .around().tested();
    }
}
