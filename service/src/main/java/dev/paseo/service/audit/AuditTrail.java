package dev.paseo.service.audit;

import dev.paseo.core.audit.Stated;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.erdtman.jcs.JsonCanonicalizer;
import org.springframework.stereotype.Component;

/** Writes entries of the audit trail, each in the transaction of what it tells. */
@Component
public class AuditTrail {

    /** Who did what to what, where, and because of what. Details are text; secrets never are among them. */
    public record Entry(String who, String what, String subject, String where, String because,
            Map<String, String> details) {

        public static Entry of(String who, String what, String subject) {
            return new Entry(who, what, subject, "", "", Map.of());
        }

        public Entry in(String environment) {
            return new Entry(who, what, subject, environment, because, details);
        }

        public Entry because(String cause) {
            return new Entry(who, what, subject, where, cause, details);
        }

        public Entry with(String name, String value) {
            Map<String, String> more = new LinkedHashMap<>(details);
            more.put(name, value);
            return new Entry(who, what, subject, where, because, more);
        }

        /**
         * States how guarded rows are from now on: {@code text} as {@link Guarded#states} tells it. Whoever changes
         * them holds a lock of theirs.
         */
        public Entry stating(String subject, String text) {
            return with(STATE + subject, Stated.digest(text));
        }

        /** States that there are no such rows from now on. */
        public Entry gone(String subject) {
            return with(STATE + subject, Stated.GONE);
        }
    }

    /** What the name of a detail begins with that states how rows are from then on. */
    static final String STATE = "state of ";

    private final AuditMapper mapper;
    private final Json json;
    private final ServiceClock clock;

    AuditTrail(AuditMapper mapper, Json json, ServiceClock clock) {
        this.mapper = mapper;
        this.json = json;
        this.clock = clock;
    }

    /**
     * Adds an entry to the transaction under way.
     *
     * @throws IllegalStateException where none is: an entry is written with what it tells, or not at all
     */
    public void record(Entry entry) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("format", 1);
        body.put("at", clock.now().toString());
        body.put("who", entry.who());
        body.put("what", entry.what());
        body.put("subject", entry.subject());
        body.put("where", entry.where());
        body.put("because", entry.because());
        body.put("details", entry.details());
        AuditMapper.NewEntry row = new AuditMapper.NewEntry(canonical(json.write(body)));
        mapper.write(Transactions.underWay(), row);
    }

    private static String canonical(String text) {
        try {
            return new JsonCanonicalizer(text).getEncodedString();
        } catch (IOException impossible) {
            throw new IllegalStateException("our own JSON is not JSON", impossible);
        }
    }

    /**
     * An entry as it was written; {@code position} is missing until it is numbered, under a second later.
     */
    public record Written(Optional<Long> position, String at, String who, String what, String subject, String because,
            Map<String, String> details) {}

    /** What was done about a deployment, the oldest first, at most so many. */
    public List<Written> about(long deployment, int most) {
        return mapper.about(Long.toString(deployment), most).stream().map(row -> {
            AuditController.WrittenView kept = json.read(row.body(), AuditController.WrittenView.class);
            Map<String, String> details = new LinkedHashMap<>(kept.details());
            details.keySet().removeIf(name -> name.startsWith(STATE));
            return new Written(Optional.ofNullable(row.position()), kept.at(), kept.who(), kept.what(), kept.subject(),
                    kept.because(), details);
        }).toList();
    }

    /**
     * Entries, the newest first.
     *
     * @param last behind which it goes on, where there may be more
     */
    record Found(List<AuditMapper.ReadRow> entries, Optional<AuditMapper.LastRow> last) {}

    Found newest(AuditMapper.Asked asked) {
        Long before = asked.before();
        AuditMapper.Asked behind = before == null ? asked
                : asked.behind(mapper.second(before).orElseThrow(
                        () -> Refusal.invalid("/before", "should be the id of an entry, as next tells it")));
        List<AuditMapper.ReadRow> entries = mapper.read(behind);
        if (asked.text() != null && entries.size() < asked.limit()) {
            return new Found(entries, mapper.lastLookedThrough(behind));
        }
        return new Found(entries, entries.isEmpty() ? Optional.empty()
                : mapper.second(entries.getLast().id())
                        .map(second -> new AuditMapper.LastRow(entries.getLast().id(), second)));
    }
}
