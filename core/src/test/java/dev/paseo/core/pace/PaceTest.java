package dev.paseo.core.pace;

import static java.util.Map.entry;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.pace.Summary.Sample;
import dev.paseo.core.pace.LeadTime.Obstacles;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class PaceTest {

    private static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");

    private static Instant at(long seconds) {
        return NOON.plusSeconds(seconds);
    }

    @Test
    void theTimeOfAWayIsSplit() {
        LeadTime way = new LeadTime(Optional.of(at(-30)), NOON, Optional.of(at(10)),
                List.of(new Span(at(15), at(40)), new Span(at(30), at(50)),
                        new Span(at(60), at(80))),
                at(90), at(190), Optional.of(at(290)),
                new Obstacles(List.of(new Span(at(100), at(310)), new Span(at(305), at(315))),
                        List.of(new Span(at(310), at(340)), new Span(at(380), at(380))),
                        List.of(new Span(at(300), at(350)), new Span(at(385), at(1000)))),
                at(390), at(400));
        assertEquals(Map.ofEntries(entry(TimePart.COMMITTED, 30L), entry(TimePart.TURN, 10L),
                entry(TimePart.BUILDING, 55L), entry(TimePart.AGENTS, 25L), entry(TimePart.BEFORE, 100L),
                entry(TimePart.PEOPLE, 100L), entry(TimePart.CLOSED, 25L), entry(TimePart.HELD, 25L),
                entry(TimePart.QUEUE, 15L), entry(TimePart.TIME, 35L), entry(TimePart.DEPLOYING, 10L)), seconds(way));
    }

    @Test
    void aVersionThatArrivedWasNotBuiltAndWhoeverWasNotAskedTookNoTime() {
        Map<TimePart, Long> seconds = seconds(new LeadTime(Optional.empty(), NOON, Optional.empty(), List.of(), NOON,
                at(5), Optional.empty(), Obstacles.NONE, at(7), at(9)));
        seconds.values().removeIf(each -> each == 0);
        assertEquals(Map.of(TimePart.BEFORE, 5L, TimePart.TIME, 2L, TimePart.DEPLOYING, 2L), seconds);
    }

    @Test
    void aCommitThatIsDatedLaterThanItsRunBeginsNothing() {
        LeadTime way = new LeadTime(Optional.of(at(100)), NOON, Optional.empty(), List.of(), NOON, NOON,
                Optional.empty(), Obstacles.NONE, NOON, at(9));
        assertEquals(9, way.parts().values().stream().mapToLong(Duration::toSeconds).sum());
    }

    private static Approvals approvals(int count, String... from) {
        return new Approvals(List.of(from), count, List.of(), false, Optional.empty(), Optional.empty());
    }

    private static LeadTime.Yes yes(String by, int at, String... as) {
        return new LeadTime.Yes(by, Set.of(as), at(at));
    }

    @Test
    void whoeverIsAskedIsWaitedForUntilEnoughHaveSaidYes() {
        LeadTime way = new LeadTime(Optional.empty(), NOON, Optional.empty(), List.of(), NOON, at(10),
                Optional.of(at(70)), Obstacles.NONE, at(80), at(90));
        List<LeadTime.Yes> said = List.of(yes("ana", 70, "ana", "rangers"), yes("bo", 30, "bo", "rangers", "testers"),
                yes("bo", 20, "bo", "rangers", "testers"), yes("eli", 25, "eli", "others"), yes("flo", 5, "early"));
        assertEquals(Map.of("rangers", Duration.ofSeconds(60), "testers or a person", Duration.ofSeconds(10),
                "others", Duration.ofSeconds(15)),
                way.waitedFor(List.of(approvals(2, "rangers"), approvals(1, "rangers"), approvals(1, "testers", "eli"),
                        approvals(2, "testers"), approvals(1, "nobody"), approvals(1, "others"), approvals(1, "early")),
                        said,
                        Set.of("rangers", "testers", "others", "early")));
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
            LeadTime way = new LeadTime(
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120) - 60)) : Optional.empty(), NOON,
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    work, at(random.nextInt(120)), at(random.nextInt(120)),
                    random.nextBoolean() ? Optional.of(at(random.nextInt(120))) : Optional.empty(),
                    new Obstacles(List.of(span(random), span(random)), List.of(span(random)),
                            List.of(span(random), span(random))),
                    at(random.nextInt(120)), live);
            Map<TimePart, Duration> parts = way.parts();
            assertTrue(parts.values().stream().noneMatch(Duration::isNegative), way + " " + parts);
            Instant began = way.committed().filter(moment -> moment.isBefore(NOON)).orElse(NOON);
            assertEquals(Duration.between(began, live), parts.values().stream().reduce(Duration.ZERO, Duration::plus));
        }
    }

    private static Span span(Random random) {
        return new Span(at(random.nextInt(120)), at(random.nextInt(120)));
    }

    private static Sample sample(long building, long people, long badFor) {
        return new Sample(new long[]{0, 0, 0, building, 0, people, 0, 0, 0, 0, 0}, badFor);
    }

    private static Map<TimePart, Long> all(long building, long people) {
        Map<TimePart, Long> all = new EnumMap<>(TimePart.class);
        for (TimePart part : TimePart.values()) {
            all.put(part, part == TimePart.BUILDING ? building : part == TimePart.PEOPLE ? people : 0);
        }
        return all;
    }

    @Test
    void manyWaysAreSummedUp() {
        List<Sample> samples = List.of(sample(10, 0, -1), sample(20, 100, 60), sample(30, 10, -1), sample(40, 50, 0));
        Summary summary = Summary.of(samples);
        assertEquals(new Summary(4, OptionalLong.of(40), OptionalLong.of(120),
                all(100L, 160L), all(20L, 10L),
                2, OptionalLong.of(0)), summary);
        assertEquals(new Summary.Brief(4, OptionalLong.of(40), 2), Summary.Brief.of(samples));
    }

    @Test
    void ofNothingThereIsNoMedian() {
        assertEquals(new Summary.Brief(0, OptionalLong.empty(), 0), Summary.Brief.of(List.of()));
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
