package dev.paseo.service.engine;

import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * What a transaction leaves to be done outside: rows, taken in order per aggregate by whichever replica comes first,
 * repeated with back-off until done or given up. Each kind has room of its own: where what one kind waits for does not
 * answer, no other waits.
 */
@Component
public class Effects {

    private static final Logger LOG = LoggerFactory.getLogger(Effects.class);
    private static final int ROOM = 4;
    private static final Duration CLAIM = Duration.ofSeconds(12);

    private final EngineMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;
    private final Nudge nudge;
    private final LiveEvents live;
    private Map<String, EffectHandler> handlers = Map.of();
    private Map<String, Semaphore> rooms = Map.of();
    private final Set<Long> inHand = ConcurrentHashMap.newKeySet();

    Effects(EngineMapper mapper, Transactions transactions, ServiceClock clock, Nudge nudge, LiveEvents live) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.nudge = nudge;
        this.live = live;
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
        rooms = handlers.keySet().stream().collect(Collectors.toMap(Function.identity(), kind -> new Semaphore(ROOM)));
        mapper.kinds().stream().filter(kind -> !handlers.containsKey(kind))
                .forEach(kind -> LOG.error("no handler for effects of kind {}: they stay undone", kind));
        Thread.ofVirtual().name("effects").start(this::work);
        Thread.ofVirtual().name("watch").start(this::watch);
    }

    private void work() {
        try (Nudge.Listening listening = nudge.listen(Nudge.EFFECTS)) {
            while (!nudge.isClosing()) {
                try {
                    if (!takeNext()) {
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

    /**
     * Takes effects as far as there is room for their kinds, each carried out on a thread of its own; false where there
     * are none.
     */
    private boolean takeNext() {
        List<EngineMapper.EffectRow> taken = transactions.in(() -> {
            Instant now = clock.now();
            Map<String, Integer> left = rooms.entrySet().stream()
                    .collect(Collectors.toMap(Map.Entry::getKey, room -> room.getValue().availablePermits()));
            String open = left.entrySet().stream().filter(room -> room.getValue() > 0).map(Map.Entry::getKey)
                    .collect(Collectors.joining(","));
            return mapper.nextEffects(now, open).stream()
                    .filter(row -> !inHand.contains(row.id()) && left.merge(row.kind(), -1, Integer::sum) >= 0
                            && mapper.claim(row.id(), row.tries(), now.plus(CLAIM)) == 1)
                    .toList();
        });
        taken.forEach(row -> {
            Semaphore room = rooms.get(row.kind());
            room.acquireUninterruptibly();
            inHand.add(row.id());
            Thread.ofVirtual().name("effect-" + row.id()).start(() -> carryOut(row, room));
        });
        return !taken.isEmpty();
    }

    private void carryOut(EngineMapper.EffectRow row, Semaphore room) {
        try {
            perform(row);
        } catch (RuntimeException failed) {
            LOG.warn("what came of {} of {} was not written down, and is done once more: {}", row.kind(),
                    row.aggregate(), failed.toString());
        } finally {
            inHand.remove(row.id());
            room.release();
            nudge.now(Nudge.EFFECTS);
        }
    }

    /** What takes long is not taken up once more beside it. */
    @Scheduled(fixedDelay = 3000)
    void goesOn() {
        Instant until = clock.now().plus(CLAIM);
        inHand.forEach(id -> mapper.goesOn(id, until));
    }

    private void perform(EngineMapper.EffectRow row) {
        EffectHandler handler = handlers.get(row.kind());
        try {
            handler.perform(row.body());
            mapper.done(row.id(), clock.now());
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
        inHand.remove(row.id());
        LOG.warn("{} of {} failed, again at {}: {}", row.kind(), row.aggregate(), due, error);
        mapper.again(row.id(), due, Shortened.to(error, 1000));
    }

    /** Notices what other replicas committed. */
    private void watch() {
        long known = 0;
        while (!nudge.isClosing()) {
            try {
                live.pull();
                if (live.fromOthers() != known) {
                    known = live.fromOthers();
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
