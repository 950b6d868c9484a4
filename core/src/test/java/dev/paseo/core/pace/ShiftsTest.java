package dev.paseo.core.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.pace.Shift.Difference;
import dev.paseo.core.pace.Shift.Kind;
import dev.paseo.core.pace.Shift.Value;
import dev.paseo.core.pace.Shifts.Point;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShiftsTest {

    private static List<Point> series(int count, IntFunction<Point> each) {
        return IntStream.range(0, count).mapToObj(each).toList();
    }

    /** Around a figure, as stages vary: by a fifth up or down, now and then by much more. */
    private static long around(long millis, Random random) {
        return Math.round(millis * Math.exp(0.2 * random.nextGaussian()) * (random.nextInt(20) == 0 ? 3 : 1));
    }

    private static Point took(long millis, String... facts) {
        return new Point(millis, false, facts.length == 0 ? Map.of() : Map.of(facts[0], facts[1]));
    }

    @ParameterizedTest
    @CsvSource({"10, 10", "40, 5", "5, 40", "150, 50", "20, 6"})
    void aStageThatBecameSlowerIsFoundWhereItDid(int before, int after) {
        Random random = new Random(before);
        List<Shift> found = Shifts.of(series(before + after,
                at -> took(around(at < before ? 60_000 : 120_000, random))));
        assertEquals(List.of(Kind.SLOWER), found.stream().map(Shift::kind).toList());
        Shift shift = found.getFirst();
        assertTrue(Math.abs(shift.at() - before) <= 3, shift.toString());
        assertTrue(shift.before() > 50_000 && shift.before() < 75_000, shift.toString());
        assertTrue(shift.after() > 95_000 && shift.after() < 150_000, shift.toString());
    }

    @Test
    void whatOnlyVariesHardlyEverMoved() {
        int found = 0;
        for (int seed = 0; seed < 500; seed++) {
            Random random = new Random(seed);
            found += Shifts.of(series(60, at -> new Point(around(60_000, random), random.nextInt(10) == 0, Map.of())))
                    .size();
        }
        assertTrue(found <= 15, found + " of 500 series that only vary are said to have moved");
    }

    @Test
    void nothingIsFoundInWhatIsShortOrFewOrSmall() {
        assertEquals(List.of(), Shifts.of(List.of()));
        assertEquals(List.of(), Shifts.of(series(5, at -> took(at < 2 ? 1000 : 90_000))));
        assertEquals(List.of(), Shifts.of(series(60, at -> took(at < 57 ? 60_000 : 600_000))), "three may be chance");
        assertEquals(List.of(), Shifts.of(series(60, at -> took(at < 30 ? 100 : 900))), "nobody waits for that");
        assertEquals(List.of(), Shifts.of(series(60, at -> took(at < 30 ? 60_000 : 66_000))), "nor for a tenth");
    }

    @Test
    void itsAgentIsNamedAndWhatIsAnotherEachTimeIsNot() {
        List<Shift> found = Shifts.of(series(20, at -> new Point(at < 12 ? 60_000 + at : 120_000 + at, false,
                Map.of("agent", at < 12 ? at % 2 == 0 ? "forge-1" : "forge-2" : "forge-3", "commit", "c" + at, "branch",
                        "main"))));
        assertEquals(List.of(new Shift(Kind.SLOWER, 12, 60_005, 120_015, List.of(new Difference("agent",
                List.of(new Value("forge-1", 6, 12), new Value("forge-2", 6, 12)),
                List.of(new Value("forge-3", 8, 8)))))), found);
    }

    @Test
    void failuresThatBeganAndEndedAreFound() {
        List<Shift> found = Shifts.of(series(45, at -> new Point(1000, at >= 20 && at < 30,
                Map.of("upstream sun-model", at < 20 ? "2.0" : at < 30 ? "2.1" : "2.2"))));
        assertEquals(List.of("FAILS_LESS 30 100 0 2.1 2.2", "FAILS_MORE 20 0 100 2.0 2.1"), found.stream()
                .map(each -> each.kind() + " " + each.at() + " " + each.before() + " " + each.after() + " "
                        + each.differences().getFirst().before().getFirst().value() + " "
                        + each.differences().getFirst().after().getFirst().value())
                .toList());
    }

    @Test
    void failuresAreNoTimes() {
        List<Point> points = new ArrayList<>(series(20, at -> took(60_000)));
        points.addAll(series(3, at -> new Point(1_000_000, true, Map.of())));
        points.addAll(series(20, at -> took(60_000)));
        assertTrue(Shifts.of(points).stream().allMatch(each -> each.kind() == Kind.FAILS_MORE
                || each.kind() == Kind.FAILS_LESS));
    }
}
