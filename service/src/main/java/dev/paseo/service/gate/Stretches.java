package dev.paseo.service.gate;

import dev.paseo.core.gate.GateFacts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * How long versions have been live and healthy in places, in one stretch; the longest stays. All within the transaction
 * under way.
 */
@Component
public class Stretches {

    private final StretchMapper mapper;
    private final ServiceClock clock;

    Stretches(StretchMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /** What was live there is no more, or is not healthy. */
    public void end(long place) {
        mapper.end(place, clock.now());
        wake(place);
    }

    /** What is live there is live and, as far as is known, healthy. */
    public void begin(long place) {
        Instant now = clock.now();
        if (mapper.unhealthy(place) == 0) {
            mapper.live(place).forEach(version -> mapper.begin(place, version, now));
        }
        wake(place);
    }

    private void wake(long place) {
        mapper.live(place).forEach(this::wakeVersion);
    }

    /** Gates at which a version waits are judged again. */
    public void wakeVersion(long version) {
        mapper.wake(version, clock.now());
        mapper.wakePassages(version, clock.now());
    }

    public GateFacts.Stretch of(Environments.Place place, long version) {
        return mapper.of(place.id(), version)
                .map(row -> stretch(place.environment(), row.longestMicros(), row.sinceAt()))
                .orElse(stretch(place.environment(), 0, null));
    }

    private static GateFacts.Stretch stretch(String environment, long longestMicros, @Nullable Instant since) {
        return new GateFacts.Stretch(environment, Duration.of(longestMicros, ChronoUnit.MICROS),
                Optional.ofNullable(since));
    }

    /** Of its version in each of these environments. */
    List<GateFacts.Stretch> in(List<String> environments, long version) {
        if (environments.isEmpty()) {
            return List.of();
        }
        Map<String, GateFacts.Stretch> known = mapper.in(environments, version).stream().collect(Collectors.toMap(
                StretchMapper.StretchInRow::environment,
                row -> stretch(row.environment(), row.longestMicros(), row.sinceAt())));
        return environments.stream().map(name -> known.getOrDefault(name, stretch(name, 0, null))).toList();
    }
}
