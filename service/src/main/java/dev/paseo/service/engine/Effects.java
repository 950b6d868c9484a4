package dev.paseo.service.engine;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * What a transaction leaves to be done outside: rows, taken in order per aggregate by whichever replica comes first,
 * repeated with back-off until done or given up.
 */
@Component
public class Effects {

    private static final Logger LOG = LoggerFactory.getLogger(Effects.class);
    private static final int WORKERS = 4;
    private static final Duration CLAIM = Duration.ofSeconds(12);

    private final EngineMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;
    private final Nudge nudge;
    private final Telling telling;
    private Map<String, EffectHandler> handlers = Map.of();

    Effects(EngineMapper mapper, Transactions transactions, ServiceClock clock, Nudge nudge, Telling telling) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.nudge = nudge;
        this.telling = telling;
    }

    /** Adds an effect to the transaction under way. The same key again adds nothing. */
    public void add(String aggregate, String key, String kind, String body) {
        Instant now = clock.now();
        mapper.addEffect(aggregate, key, kind, body, now, now.plus(Duration.ofMinutes(10)));
        nudge.afterCommit(Nudge.EFFECTS);
    }

    @EventListener
    void start(ApplicationReadyEvent ready) {
        handlers = ready.getApplicationContext().getBeansOfType(EffectHandler.class).values().stream()
                .collect(Collectors.toMap(EffectHandler::kind, Function.identity()));
        for (int worker = 0; worker < WORKERS; worker++) {
            Thread.ofVirtual().name("effects-" + worker).start(this::work);
        }
        Thread.ofVirtual().name("watch").start(this::watch);
    }

    private void work() {
        try (Nudge.Listening listening = nudge.listen(Nudge.EFFECTS)) {
            while (!nudge.isClosing()) {
                try {
                    if (!performNext()) {
                        listening.await(1000);
                    }
                } catch (InterruptedException stop) {
                    return;
                } catch (RuntimeException failed) {
                    LOG.warn("effects pause for a second: {}", failed.toString());
                    pause();
                }
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(1000);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }

    /** Takes and carries out one effect; false where there is none. */
    boolean performNext() {
        Optional<EngineMapper.EffectRow> next = transactions.in(() -> {
            Instant now = clock.now();
            return mapper.nextEffect(now).filter(row -> mapper.claim(row.id(), row.tries(), now.plus(CLAIM)) == 1);
        });
        next.ifPresent(this::perform);
        return next.isPresent();
    }

    private void perform(EngineMapper.EffectRow row) {
        EffectHandler handler = handlers.get(row.kind());
        if (handler == null) {
            LOG.error("no handler for effects of kind {}: effect {} of {} stays undone", row.kind(), row.id(), row.aggregate());
            return;
        }
        try {
            handler.perform(row.body());
            mapper.done(row.id(), clock.now());
            nudge.now(Nudge.EFFECTS);
        } catch (RuntimeException failed) {
            again(row, handler, failed);
        }
    }

    private void again(EngineMapper.EffectRow row, EffectHandler handler, RuntimeException failed) {
        String error = String.valueOf(failed.getMessage());
        Instant now = clock.now();
        Instant due = now.plusMillis(Math.min(30_000, 200L << Math.min(row.tries(), 10)));
        if (due.isAfter(row.deadline()) || failed instanceof GivesUp) {
            LOG.warn("gave up on {} of {}: {}", row.kind(), row.aggregate(), error);
            handler.gaveUp(row.body(), error);
            mapper.done(row.id(), now);
            return;
        }
        LOG.warn("{} of {} failed, again at {}: {}", row.kind(), row.aggregate(), due, error);
        mapper.again(row.id(), due, error.length() > 1000 ? error.substring(0, 1000) : error);
    }

    /** Notices what other replicas committed. */
    private void watch() {
        long known = 0;
        while (!nudge.isClosing()) {
            try {
                telling.pull();
                if (telling.fromOthers() != known) {
                    known = telling.fromOthers();
                    nudge.all();
                }
                Thread.sleep(100);
            } catch (InterruptedException stop) {
                return;
            } catch (RuntimeException failed) {
                LOG.warn("the database does not answer: {}", failed.toString());
                pause();
            }
        }
    }

    /** Thrown by a handler whose effect can never succeed. */
    public static final class GivesUp extends RuntimeException {
        public GivesUp(String message) {
            super(message);
        }
    }
}
