package dev.paseo.core.history;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.history.Differences.At;
import dev.paseo.core.history.Differences.Changed;
import dev.paseo.core.history.Differences.LiveThen;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

class HistoryTest {

    private static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");

    private static Happening happening(Mark mark) {
        return new Happening(mark, What.WENT_LIVE, Optional.empty(), "test", Optional.empty(), Optional.empty(),
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), false);
    }

    /** What a source answers: what stands behind a mark, at most so many, the newest first. */
    private static List<Happening> asked(List<Mark> all, Source source, Optional<Mark> after, int limit) {
        return all.stream().filter(mark -> mark.source() == source).filter(mark -> after.map(last -> {
            Mark.Bound bound = last.behind(source);
            return mark.at().isBefore(bound.at()) || mark.at().equals(bound.at()) && mark.id() < bound.id();
        }).orElse(true)).sorted().limit(limit).map(HistoryTest::happening).toList();
    }

    /** Many happen at one moment, in several sources: each is told once, in one order, whatever the pages' length. */
    @Test
    void pageByPageEachIsToldOnce() {
        Random random = new Random(7);
        for (int round = 0; round < 200; round++) {
            TreeSet<Mark> marks = new TreeSet<>();
            for (int i = random.nextInt(40); i > 0; i--) {
                marks.add(new Mark(NOON.plusSeconds(random.nextInt(4)),
                        Source.values()[random.nextInt(Source.values().length)], 1 + random.nextInt(5)));
            }
            List<Mark> all = List.copyOf(marks);
            int limit = 1 + random.nextInt(6);
            List<Mark> told = new ArrayList<>();
            Optional<Mark> after = Optional.empty();
            do {
                Optional<Mark> last = after;
                Page page = Page.of(List.of(Source.values()).stream()
                        .map(source -> asked(all, source, last, limit + 1)).toList(), last, limit);
                page.happenings().forEach(each -> told.add(each.mark()));
                after = page.next();
            } while (after.isPresent());
            assertEquals(all, told);
            assertEquals(all, told.stream().sorted(Comparator.comparing(Mark::at).reversed()
                    .thenComparing(Mark::source).thenComparing(Comparator.comparing(Mark::id).reversed())).toList());
        }
    }

    @Test
    void aCursorIsReadAsItWasWritten() {
        Mark mark = new Mark(NOON.plusNanos(123_456_000), Source.HOLD, 42);
        assertEquals(Optional.of(mark), Mark.read(mark.cursor()));
        for (String none : List.of("", "x", "2026-05-04T12:00:00Z~3", "2026-05-04T12:00:00Z~9~1",
                "2026-13-04T12:00:00Z~1~1", "2026-05-04T12:00:00Z~1~-1", "2026-05-04T12:00:00Z~1~1 ")) {
            assertEquals(Optional.empty(), Mark.read(none), none);
        }
    }

    @Test
    void betweenTwoMomentsIsWhatDiffers() {
        At test = new At("daylight-api", 1, "test");
        At production = new At("daylight-api", 3, "production");
        At path = new At("path-board", 1, "test");
        LiveThen old = new LiveThen("1.4.1", 3);
        LiveThen next = new LiveThen("1.4.2", 7);
        assertEquals(List.of(new Changed(test, Optional.of(old), Optional.of(next)),
                new Changed(production, Optional.empty(), Optional.of(old)),
                new Changed(path, Optional.of(next), Optional.empty())),
                Differences.between(Map.of(test, old, path, next), Map.of(production, old, test, next)));
        assertEquals(List.of(), Differences.between(Map.of(test, old), Map.of(test, old)));
        Changed again = Differences.between(Map.of(test, old), Map.of(test, new LiveThen("1.4.1", 9))).getFirst();
        assertTrue(again.sameVersion(), "deployed once more");
        assertFalse(new Changed(test, Optional.empty(), Optional.of(old)).sameVersion());
    }
}
