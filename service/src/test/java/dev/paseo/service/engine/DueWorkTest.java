package dev.paseo.service.engine;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DueWorkTest {

    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");

    private final List<String> due = new ArrayList<>(List.of("a", "b", "c"));
    private final List<String> claimed = new ArrayList<>();
    private final LinkedBlockingQueue<String> performed = new LinkedBlockingQueue<>();

    private DueWork<String> work(int atOnce, Predicate<String> claim, Consumer<String> perform) {
        return new DueWork<>("looking", atOnce, new DueWork.Ways<>() {
            @Override
            public List<String> due(Instant now) {
                return List.copyOf(due);
            }

            @Override
            public boolean claim(String row, Instant now) {
                claimed.add(row);
                return claim.test(row) && due.remove(row);
            }

            @Override
            public void perform(String row) {
                performed.add(row);
                perform.accept(row);
            }
        });
    }

    private String next() throws InterruptedException {
        String row = performed.poll(10, TimeUnit.SECONDS);
        return row == null ? "nothing" : row;
    }

    @Test
    void whoIsSilentHoldsOneRoomAndNobodyWhoTakes() throws Exception {
        CountDownLatch answer = new CountDownLatch(1);
        DueWork<String> work = work(2, row -> true, row -> {
            try {
                answer.await();
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
            }
        });
        work.take(NOW);
        assertEquals(List.of("a", "b"), claimed, "there is no room for the third, so it is left to others");
        work.take(NOW);
        assertEquals(List.of("a", "b"), claimed);
        answer.countDown();
        next();
        next();
        for (int tries = 0; !claimed.contains("c") && tries < 10_000; tries++) {
            work.take(NOW);
            Thread.yield();
        }
        assertEquals("c", next());
    }

    @Test
    void whatAnotherReplicaHasIsPassedOverAndTakesNoRoom() throws Exception {
        DueWork<String> work = work(1, row -> row.equals("c"), row -> {});
        work.take(NOW);
        assertEquals(List.of("a", "b", "c"), claimed);
        assertEquals("c", next());
    }

    @Test
    void aClaimThatFailsGivesItsRoomBack() throws Exception {
        DueWork<String> work = work(1, row -> {
            if (claimed.size() == 1) {
                throw new IllegalStateException("the database is away");
            }
            return true;
        }, row -> {});
        assertThrows(IllegalStateException.class, () -> work.take(NOW));
        work.take(NOW);
        assertEquals("a", next());
    }

    @Test
    void workThatFailsGivesItsRoomBack() throws Exception {
        DueWork<String> work = work(1, row -> true, row -> {
            throw new IllegalStateException("it could not be written down");
        });
        for (String row : List.of("a", "b", "c")) {
            for (int tries = 0; !claimed.contains(row) && tries < 1_000_000; tries++) {
                work.take(NOW);
                Thread.yield();
            }
            assertEquals(row, next());
        }
    }

    @ParameterizedTest
    @CsvSource({"0, PT30S", "1, PT1M", "2, PT2M", "5, PT16M", "6, PT30M", "1000, PT30M"})
    void eachFailureDoublesThePauseUpToTheLongest(int failures, Duration pause) {
        assertEquals(pause, DueWork.pause(Duration.ofSeconds(30), failures, Duration.ofMinutes(30)));
    }
}
