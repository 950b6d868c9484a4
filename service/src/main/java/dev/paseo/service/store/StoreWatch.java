package dev.paseo.service.store;

import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.DueWork;
import dev.paseo.service.store.StoreMapper.SightingRow;
import dev.paseo.service.store.StoreMapper.StoreRow;
import dev.paseo.service.store.WatchedStore.Sighting;
import dev.paseo.service.store.WatchedStore.Where;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks into the observed stores, each when its time has come, and less often while it is away. */
@Component
class StoreWatch implements DueWork.Ways<StoreRow> {

    private static final Logger LOG = LoggerFactory.getLogger(StoreWatch.class);
    private static final int AT_ONCE = 16;
    private static final Duration CLAIM = Duration.ofMinutes(15);
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(30);

    private final StoreMapper mapper;
    private final OpenedStores opened;
    private final Sightings sightings;
    private final Components components;
    private final ServiceClock clock;
    private final Json json;
    private final Duration every;
    private final DueWork<StoreRow> work = new DueWork<>("store", AT_ONCE, this);
    private final Map<String, String> seenOnce = new ConcurrentHashMap<>();

    StoreWatch(StoreMapper mapper, OpenedStores opened, Sightings sightings, Components components,
            ServiceClock clock, Json json, @Value("${paseo.poll:30s}") Duration every) {
        this.mapper = mapper;
        this.opened = opened;
        this.sightings = sightings;
        this.components = components;
        this.clock = clock;
        this.json = json;
        this.every = every;
    }

    @Scheduled(fixedDelay = 500)
    void look() {
        work.take(clock.now());
    }

    @Override
    public List<StoreRow> due(Instant now) {
        return mapper.due(now);
    }

    @Override
    public boolean claim(StoreRow due, Instant now) {
        return mapper.claim(due.id(), due.nextAt(), now.plus(CLAIM)) == 1;
    }

    @Override
    public void perform(StoreRow row) {
        try {
            look(row, json.read(row.body(), Where.class));
            mapper.looked(row.id(), clock.now().plus(every), clock.now());
        } catch (RuntimeException away) {
            Instant next = clock.now().plus(DueWork.pause(every, row.failures() + 1, LONGEST_PAUSE));
            mapper.failed(row.id(), next, cut(String.valueOf(away.getMessage())));
            LOG.warn("the store {} cannot be looked at, again at {}: {}", row.address(), next, away.toString());
        }
    }

    private void look(StoreRow row, Where where) {
        WatchedStore store = opened.open(row, where);
        RegisteredComponent component = components.byId(row.componentId());
        Map<String, SightingRow> known = sightings.known(row);
        boolean first = row.lookedAt() == null && !where.existing();
        for (Sighting sighting : store.list(!known.isEmpty())) {
            SightingRow before = known.get(sighting.number());
            if (before != null) {
                sightings.moved(row, component, before, sighting);
            } else if (first) {
                sightings.passedOver(row, sighting);
            } else if (where.kind() != WatchedStore.Kind.FOLDER
                    || sighting.digest().equals(seenOnce.put(row.id() + " " + sighting.number(), sighting.digest()))) {
                seenOnce.remove(row.id() + " " + sighting.number());
                sightings.arrived(row, component, store, sighting);
            }
        }
    }

    static String cut(String text) {
        return Shortened.to(text, 1000);
    }
}
