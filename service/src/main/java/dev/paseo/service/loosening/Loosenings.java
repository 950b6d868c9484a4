package dev.paseo.service.loosening;

import dev.paseo.core.gate.Review;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * What of the rules of production and its like was loosened: an environment's rules, a component's trusted branches,
 * what secrets it is given. What goes live under it within a day is looked at afterwards by somebody else than who
 * loosened it.
 */
@Component
public class Loosenings {

    private static final int LONGEST = 1000;

    /** What was loosened, by whom and when. */
    public record Loosened(String what, String by, long byId, Instant at) {}

    private final LooseningMapper mapper;
    private final ServiceClock clock;

    Loosenings(LooseningMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /** In the transaction of what it tells. */
    public void ofEnvironment(long environment, String what, String by) {
        mapper.add(environment, null, shortened(what), by, clock.now());
    }

    public void ofComponent(long component, String what, String by) {
        mapper.add(null, component, shortened(what), by, clock.now());
    }

    private static String shortened(String what) {
        return Shortened.to(what, LONGEST);
    }

    /** Marks what went live for review where something was loosened within the last day; what that was. */
    public Optional<Loosened> wentLive(long deployment, long environment, long component) {
        Instant now = clock.now();
        return mapper.newest(environment, component, Review.since(now))
                .filter(loosened -> mapper.review(deployment, Review.due(now),
                        shortened(loosened.by() + " loosened " + loosened.what()), loosened.byId()) == 1);
    }
}
