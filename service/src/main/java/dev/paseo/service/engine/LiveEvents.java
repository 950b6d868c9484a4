package dev.paseo.service.engine;

import dev.paseo.service.clock.ServiceClock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Live events: written in the business transaction, with a sequence of their own. A transaction may commit after one
 * that got a higher number, so readers look back over the newest numbers and pass over those they have had.
 */
@Component
public class LiveEvents {

    private static final int LOOK_BACK = 300;
    private static final int KEPT = 2000;

    /** Something changed: its kind ({@code run}, {@code deployment}, ...) and which one. */
    public record LiveEvent(long sequence, String kind, String subject, Instant at) {}

    private final EngineMapper mapper;
    private final Nudge nudge;
    private final ServiceClock clock;
    private final TreeMap<Long, LiveEvent> recent = new TreeMap<>();
    private final ArrayDeque<LiveEvent> arrived = new ArrayDeque<>();
    private final String replica = UUID.randomUUID().toString();
    private long arrivals;
    private long fromOthers;

    LiveEvents(EngineMapper mapper, Nudge nudge, ServiceClock clock) {
        this.mapper = mapper;
        this.nudge = nudge;
        this.clock = clock;
    }

    /** Tells it once the transaction under way has committed. */
    public void publish(String kind, String subject) {
        mapper.tell(kind, subject, replica, clock.now());
        nudge.afterCommit(Nudge.EVENTS);
    }

    /** Reads what is new in the database. */
    public void pull() {
        long last = lastKnown();
        List<EngineMapper.EventRow> rows = mapper
                .eventsAfter(last == 0 ? Math.max(0, mapper.lastEvent() - LOOK_BACK) : last - LOOK_BACK);
        take(rows);
    }

    private synchronized long lastKnown() {
        return recent.isEmpty() ? 0 : recent.lastKey();
    }

    private synchronized void take(List<EngineMapper.EventRow> rows) {
        for (EngineMapper.EventRow row : rows) {
            LiveEvent event = new LiveEvent(row.sequence(), row.kind(), row.subject(), row.at());
            if (recent.putIfAbsent(row.sequence(), event) == null) {
                arrived.addLast(event);
                arrivals++;
                fromOthers += row.replica().equals(replica) ? 0 : 1;
            }
        }
        while (recent.size() > KEPT) {
            recent.pollFirstEntry();
        }
        while (arrived.size() > KEPT) {
            arrived.removeFirst();
        }
    }

    /** How many came from other replicas so far; this one's own were told as they were committed. */
    synchronized long fromOthers() {
        return fromOthers;
    }

    /** Where a listener stands. */
    public synchronized long position() {
        return arrivals;
    }

    /** What has arrived since this position; empty list where nothing has. */
    public synchronized List<LiveEvent> since(long position) {
        int fresh = (int) Math.min(arrivals - position, arrived.size());
        List<LiveEvent> all = new ArrayList<>(arrived);
        return all.subList(all.size() - Math.max(0, fresh), all.size());
    }

    /** What a listener that had everything up to this sequence has missed, as far as it is still kept. */
    public List<LiveEvent> missed(long sequence) {
        return mapper.eventsAfter(sequence).stream()
                .map(row -> new LiveEvent(row.sequence(), row.kind(), row.subject(), row.at()))
                .sorted(Comparator.comparingLong(LiveEvent::sequence)).toList();
    }

    @Scheduled(fixedDelay = 600_000)
    void forget() {
        mapper.forgetEvents(clock.now().minus(Duration.ofDays(1)));
    }
}
