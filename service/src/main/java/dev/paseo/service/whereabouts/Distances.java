package dev.paseo.service.whereabouts;

import dev.paseo.service.component.Components;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * How many commits lie between two. Git is asked beside, one question at a time: what is not known yet is told the next
 * time.
 */
@Component
class Distances {

    private static final Logger LOG = LoggerFactory.getLogger(Distances.class);
    private static final int REMEMBERED = 20_000;

    private record Pair(long component, String from, String to) {}

    private final Components components;
    private final ExecutorService asking = Executors.newSingleThreadExecutor(Thread.ofVirtual().factory());
    /** Commits never change, so neither do these; empty while git is being asked. */
    private final Map<Pair, Optional<Integer>> known = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Pair, Optional<Integer>> eldest) {
            return size() > REMEMBERED;
        }
    };

    Distances(Components components) {
        this.components = components;
    }

    Optional<Integer> between(Components.RegisteredComponent component, @Nullable String from, @Nullable String to) {
        if (from == null || to == null || component.repository().isEmpty()) {
            return Optional.empty();
        }
        Pair pair = new Pair(component.id(), from, to);
        synchronized (known) {
            Optional<Integer> distance = known.get(pair);
            if (distance != null) {
                return distance;
            }
            known.put(pair, Optional.empty());
        }
        asking.execute(() -> ask(component, pair));
        return Optional.empty();
    }

    private void ask(Components.RegisteredComponent component, Pair pair) {
        try {
            int distance = components.mirror(component).distance(pair.from(), pair.to());
            synchronized (known) {
                known.put(pair, Optional.of(distance));
            }
        } catch (RuntimeException failed) {
            LOG.debug("git does not say how far {} is from {}: {}", pair.from(), pair.to(), failed.toString());
            synchronized (known) {
                known.remove(pair);
            }
        }
    }
}
