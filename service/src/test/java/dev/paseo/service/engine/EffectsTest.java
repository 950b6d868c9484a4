package dev.paseo.service.engine;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.ConfigurableApplicationContext;

/** What follows from a change is done: in the order of what it is about, again where it fails, and given up aloud. */
class EffectsTest {

    /** Far more than any of this takes: a test that waits so long has failed. */
    private static final long PATIENCE = 30;

    private final RealDatabase database = RealDatabase.get();
    private final AtomicReference<Instant> now = new AtomicReference<>(Rows.NOON);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final Nudge nudge = new Nudge();
    private final Effects effects = new Effects(database.mapper(EngineMapper.class), database.transactions(), clock,
            nudge, mock(LiveEvents.class));
    private final Handler quick = new Handler();
    private final Handler slow = new Handler();

    /** One whose deeds are told in the order in which they are done. */
    private static final class Handler implements EffectHandler {
        final String kind = Rows.fresh("kind");
        final BlockingQueue<String> done = new LinkedBlockingQueue<>();
        volatile Consumer<String> deed = body -> {};

        @Override
        public String kind() {
            return kind;
        }

        @Override
        public void perform(String body) {
            deed.accept(body);
            done.add(body);
        }

        @Override
        public void gaveUp(String body, String error) {
            done.add("gave up " + body + ": " + error);
        }

        String next() throws InterruptedException {
            return done.poll(PATIENCE, TimeUnit.SECONDS);
        }
    }

    @BeforeEach
    void begin() {
        when(clock.now()).thenAnswer(call -> now.get());
        ConfigurableApplicationContext context = mock(ConfigurableApplicationContext.class);
        when(context.getBeansOfType(EffectHandler.class)).thenReturn(Map.of("quick", quick, "slow", slow));
        ApplicationReadyEvent ready = mock(ApplicationReadyEvent.class);
        when(ready.getApplicationContext()).thenReturn(context);
        effects.start(ready);
    }

    @AfterEach
    void end() {
        nudge.close();
    }

    private void add(Handler handler, String aggregate, String body) {
        effects.add(aggregate, Rows.fresh("key"), handler.kind, body);
    }

    private void later(Duration time) {
        now.updateAndGet(before -> before.plus(time));
        nudge.now(Nudge.EFFECTS);
    }

    @Test
    void ofOneThingTheyAreDoneInTheirOrder() throws InterruptedException {
        String run = Rows.fresh("run");
        for (int at = 0; at < 9; at++) {
            add(quick, run, Integer.toString(at));
        }
        for (int at = 0; at < 9; at++) {
            assertEquals(Integer.toString(at), quick.next());
        }
    }

    @Test
    void theSameKeyAgainAddsNothing() throws InterruptedException {
        String key = Rows.fresh("key");
        String run = Rows.fresh("run");
        effects.add(run, key, quick.kind, "1");
        effects.add(run, key, quick.kind, "2");
        add(quick, run, "3");
        assertEquals("1", quick.next());
        assertEquals("3", quick.next());
    }

    /** What failed is done again, not at once, and what comes after it waits for it. */
    @Test
    void whatFailsIsDoneAgain() throws InterruptedException {
        CountDownLatch failed = new CountDownLatch(1);
        quick.deed = body -> {
            quick.deed = next -> {};
            failed.countDown();
            throw new IllegalStateException("git does not answer");
        };
        String run = Rows.fresh("run");
        add(quick, run, "1");
        add(quick, run, "2");
        assertEquals(true, failed.await(PATIENCE, TimeUnit.SECONDS));
        assertNull(quick.done.peek(), "the time has not come");
        String first = null;
        while (first == null) {
            later(Duration.ofSeconds(1));
            first = quick.done.poll(50, TimeUnit.MILLISECONDS);
        }
        assertEquals("1", first);
        assertEquals("2", quick.next());
    }

    @Test
    void whatCanNeverSucceedIsGivenUpAndTheNextIsDone() throws InterruptedException {
        quick.deed = body -> {
            if (body.equals("1")) {
                throw new Effects.GivesUp("there is no such branch");
            }
        };
        String run = Rows.fresh("run");
        add(quick, run, "1");
        add(quick, run, "2");
        assertEquals("gave up 1: there is no such branch", quick.next());
        assertEquals("2", quick.next());
    }

    @Test
    void afterTenMinutesItIsGivenUp() throws InterruptedException {
        quick.deed = body -> {
            now.updateAndGet(before -> before.plus(Duration.ofMinutes(11)));
            throw new IllegalStateException("git does not answer");
        };
        add(quick, Rows.fresh("run"), "1");
        assertEquals("gave up 1: git does not answer", quick.next());
    }

    /** Whoever is silent holds up its own kind alone. */
    @Test
    void oneKindWaitsForNoOther() throws InterruptedException {
        CountDownLatch answer = new CountDownLatch(1);
        slow.deed = body -> {
            try {
                assertEquals(true, answer.await(PATIENCE, TimeUnit.SECONDS));
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        };
        for (int at = 0; at < 9; at++) {
            add(slow, Rows.fresh("run"), Integer.toString(at));
        }
        add(quick, Rows.fresh("run"), "9");
        assertEquals("9", quick.next());
        assertNull(slow.done.peek());
        answer.countDown();
        for (int at = 0; at < 9; at++) {
            assertNotNull(slow.next());
        }
    }
}
