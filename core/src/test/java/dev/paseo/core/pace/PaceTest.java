package dev.paseo.core.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.pace.Summary.Sample;
import dev.paseo.core.pace.Way.Span;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class PaceTest {

    private static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");

    private static Instant at(long seconds) {
        return NOON.plusSeconds(seconds);
    }

    @Test
    void theTimeOfAWayIsSplit() {
        Way way = new Way(NOON, Optional.of(at(10)), List.of(new Span(at(15), at(40)), new Span(at(30), at(50)),
                new Span(at(60), at(80))), at(90), at(190), Optional.of(at(290)), at(390), at(400));
        assertEquals(Map.of(Part.TURN, 10L, Part.BUILDING, 55L, Part.AGENTS, 25L, Part.BEFORE, 100L, Part.PEOPLE, 100L,
                Part.TIME, 100L, Part.DEPLOYING, 10L), seconds(way));
    }

    @Test
    void aVersionThatArrivedWasNotBuiltAndWhoeverWasNotAskedTookNoTime() {
        Way way = new Way(NOON, Optional.empty(), List.of(), NOON, at(5), Optional.empty(), at(7), at(9));
        assertEquals(Map.of(Part.TURN, 0L, Part.BUILDING, 0L, Part.AGENTS, 0L, Part.BEFORE, 5L, Part.PEOPLE, 0L,
                Part.TIME, 2L, Part.DEPLOYING, 2L), seconds(way));
    }

    private static Map<Part, Long> seconds(Way way) {
        return way.parts().entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, each -> each.getValue().toSeconds()));
    }

    /** Whatever order the clocks say things were in, no part is negative and all together are the whole. */
    @Test
    void allPartsAreTheWhole() {
        Random random = new Random(11);
        for (int round = 0; round < 2000; round++) {
            Instant live = at(random.nextInt(100));
            List<Span> work = new ArrayList<>();
            for (int i = random.nextInt(6); i > 0; i--) {
                work.add(new Span(at(random.nextInt(100)), at(random.nextInt(120))));
            }
            Way way = new Way(NOON, random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    work, at(random.nextInt(120)), at(random.nextInt(120)),
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    at(random.nextInt(120)), live);
            Map<Part, Duration> parts = way.parts();
            assertTrue(parts.values().stream().noneMatch(Duration::isNegative), way + " " + parts);
            assertEquals(Duration.between(NOON, live), parts.values().stream().reduce(Duration.ZERO, Duration::plus));
        }
    }

    private static Sample sample(long building, long people, long badFor) {
        return new Sample(new long[]{0, 0, building, 0, people, 0, 0}, badFor);
    }

    @Test
    void manyWaysAreSummedUp() {
        Summary summary = Summary.of(List.of(sample(10, 0, -1), sample(20, 100, 60), sample(30, 10, -1),
                sample(40, 50, 0)));
        assertEquals(new Summary(4, OptionalLong.of(40), OptionalLong.of(120),
                Map.of(Part.TURN, 0L, Part.AGENTS, 0L, Part.BUILDING, 100L, Part.BEFORE, 0L, Part.PEOPLE, 160L,
                        Part.TIME, 0L, Part.DEPLOYING, 0L),
                Map.of(Part.TURN, 0L, Part.AGENTS, 0L, Part.BUILDING, 20L, Part.BEFORE, 0L, Part.PEOPLE, 10L,
                        Part.TIME, 0L, Part.DEPLOYING, 0L),
                2, OptionalLong.of(0)), summary);
    }

    @Test
    void ofNothingThereIsNoMedian() {
        Summary none = Summary.of(List.of());
        assertEquals(OptionalLong.empty(), none.median());
        assertEquals(Map.of(), none.medians());
        assertEquals(0, none.live());
    }

    @Test
    void percentilesAreByNearestRank() {
        long[] ten = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10};
        assertEquals(List.of(5L, 9L, 10L, 1L), List.of(50, 90, 100, 1).stream()
                .map(percent -> Summary.percentile(ten, percent).orElseThrow()).toList());
        assertEquals(OptionalLong.of(7), Summary.percentile(new long[]{7}, 90));
    }
}
