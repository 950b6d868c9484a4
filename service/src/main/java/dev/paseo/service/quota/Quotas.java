package dev.paseo.service.quota;

import dev.paseo.core.quota.Quota;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.QuotaMapper.KeptRow;
import dev.paseo.service.settings.Settings;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * How much each component has kept. What came is counted in memory and written down once a second, so that nobody who
 * sends something waits for it; a service that ends by force forgets what came in its last second.
 */
@Component
public class Quotas {

    /** Whoever tells people. */
    public interface Hearer {
        /** In the transaction that notes it: once, and again where more is allowed and that is nearly taken too. */
        void nearlyFull(String component, String sentence);
    }

    private static final Logger LOG = LoggerFactory.getLogger(Quotas.class);

    private final QuotaMapper mapper;
    private final Transactions transactions;
    private final ObjectProvider<Hearer> hearers;
    private final Quota quota;
    /** What came since it was written down. */
    private final Map<Long, Long> pending = new HashMap<>();
    /** What was written down, by this replica and others. */
    private final Map<Long, Long> written = new HashMap<>();

    Quotas(QuotaMapper mapper, Transactions transactions, ObjectProvider<Hearer> hearers, Settings settings) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.hearers = hearers;
        this.quota = new Quota(settings.keptPerComponent().bytes());
    }

    /** Refuses what there is no room for; how many bytes there is room for otherwise. */
    public long room(long component, long more) {
        long kept = kept(component);
        if (!quota.takes(kept, more)) {
            throw Refusal.tooLarge(quota.full(mapper.name(component), kept, more).orElseThrow());
        }
        return quota.left(kept);
    }

    /** So much came, and was kept. */
    public synchronized void kept(long component, long bytes) {
        pending.merge(component, bytes, Long::sum);
    }

    /** Whose work it is. */
    public long ofWork(long work) {
        return mapper.ofWork(work).orElseThrow(() -> new IllegalStateException("work " + work + " is of no component"));
    }

    /** How many bytes a component has kept, about. */
    public synchronized long kept(long component) {
        return written.getOrDefault(component, 0L) + pending.getOrDefault(component, 0L);
    }

    /** The components that have kept the most, by name, the largest first. */
    public Map<String, Long> largest(int limit) {
        return mapper.all().stream().sorted(Comparator.comparingLong(KeptRow::bytes).reversed()).limit(limit)
                .collect(Collectors.toMap(KeptRow::component, KeptRow::bytes, (one, other) -> one, LinkedHashMap::new));
    }

    public Quota quota() {
        return quota;
    }

    @Scheduled(fixedDelay = 1000)
    void writeDown() {
        Map<Long, Long> now = came();
        now.forEach(mapper::add);
        List<KeptRow> rows = mapper.all();
        swap(now, rows);
        rows.stream().filter(row -> now.containsKey(row.componentId())).forEach(this::tell);
    }

    private synchronized Map<Long, Long> came() {
        return Map.copyOf(pending);
    }

    /** What was counted as pending counts as written, at one stroke. */
    private synchronized void swap(Map<Long, Long> came, List<KeptRow> rows) {
        came.forEach((component, bytes) -> pending.computeIfPresent(component,
                (id, all) -> all.equals(bytes) ? null : all - bytes));
        rows.forEach(row -> written.put(row.componentId(), row.bytes()));
    }

    private void tell(KeptRow row) {
        Optional<String> nearly = quota.nearly(row.component(), row.bytes());
        if (nearly.isPresent() == row.told()) {
            return;
        }
        transactions.run(() -> {
            if (mapper.told(row.componentId(), nearly.isPresent()) == 1 && nearly.isPresent()) {
                LOG.warn("{}", nearly.get());
                hearers.forEach(hearer -> hearer.nearlyFull(row.component(),
                        nearly.get() + ". An operator allows more in paseo.kept-per-component."));
            }
        });
    }
}
