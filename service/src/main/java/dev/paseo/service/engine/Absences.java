package dev.paseo.service.engine;

import dev.paseo.service.clock.ServiceClock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** When no replica of the service was at work, so that the time which something took is told without it. */
@Component
public class Absences {

    private static final Duration FRESH = Duration.ofSeconds(5);

    private final EngineMapper mapper;
    private final ServiceClock clock;
    private volatile Known known = new Known(Instant.MIN, List.of());

    /** A time when none was at work. */
    public record Absence(Instant fromAt, Instant toAt) {}

    private record Known(Instant readAt, List<Absence> all) {}

    Absences(EngineMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /** For how many whole seconds of this time none was at work; {@code to} absent: until now. */
    public long secondsWithin(@Nullable Instant from, @Nullable Instant to) {
        if (from == null) {
            return 0;
        }
        Instant now = clock.now();
        if (known.readAt().plus(FRESH).isBefore(now)) {
            known = new Known(now, mapper.absences());
        }
        return within(from, to == null ? now : to, known.all()).toSeconds();
    }

    static Duration within(Instant from, Instant to, List<Absence> absences) {
        return absences.stream()
                .map(each -> Duration.between(each.fromAt().isAfter(from) ? each.fromAt() : from,
                        each.toAt().isBefore(to) ? each.toAt() : to))
                .filter(Duration::isPositive).reduce(Duration.ZERO, Duration::plus);
    }
}
