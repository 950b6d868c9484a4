package dev.paseo.core.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.pace.Summary.Sample;
import dev.paseo.core.pace.LeadTime.Span;
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
        LeadTime way = new LeadTime(NOON, Optional.of(at(10)),
                List.of(new Span(at(15), at(40)), new Span(at(30), at(50)),
                        new Span(at(60), at(80))),
                at(90), at(190), Optional.of(at(290)), at(390), at(400));
        assertEquals(Map.of(TimePart.TURN, 10L, TimePart.BUILDING, 55L, TimePart.AGENTS, 25L, TimePart.BEFORE, 100L,
                TimePart.PEOPLE, 100L,
                TimePart.TIME, 100L, TimePart.DEPLOYING, 10L), seconds(way));
    }

    @Test
    void aVersionThatArrivedWasNotBuiltAndWhoeverWasNotAskedTookNoTime() {
        LeadTime way = new LeadTime(NOON, Optional.empty(), List.of(), NOON, at(5), Optional.empty(), at(7), at(9));
        assertEquals(Map.of(TimePart.TURN, 0L, TimePart.BUILDING, 0L, TimePart.AGENTS, 0L, TimePart.BEFORE, 5L,
                TimePart.PEOPLE, 0L,
                TimePart.TIME, 2L, TimePart.DEPLOYING, 2L), seconds(way));
    }

    private static Map<TimePart, Long> seconds(LeadTime way) {
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
            LeadTime way = new LeadTime(NOON,
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    work, at(random.nextInt(120)), at(random.nextInt(120)),
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    at(random.nextInt(120)), live);
            Map<TimePart, Duration> parts = way.parts();
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
                Map.of(TimePart.TURN, 0L, TimePart.AGENTS, 0L, TimePart.BUILDING, 100L, TimePart.BEFORE, 0L,
                        TimePart.PEOPLE, 160L,
                        TimePart.TIME, 0L, TimePart.DEPLOYING, 0L),
                Map.of(TimePart.TURN, 0L, TimePart.AGENTS, 0L, TimePart.BUILDING, 20L, TimePart.BEFORE, 0L,
                        TimePart.PEOPLE, 10L,
                        TimePart.TIME, 0L, TimePart.DEPLOYING, 0L),
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
