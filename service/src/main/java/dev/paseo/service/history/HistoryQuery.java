package dev.paseo.service.history;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads what is asked of history: what is named is there, or was. */
@Component
class HistoryQuery {

    private static final Duration USUAL = Duration.ofDays(7);
    private static final Duration LONGEST = Duration.ofDays(400);
    private static final int LANES = 50;

    /** What is wanted, by names. */
    record Wanted(Optional<String> component, Optional<String> environment, Optional<String> host,
            Optional<String> by, Optional<Instant> since, Optional<Instant> until) {}

    private final HistoryMapper mapper;
    private final ServiceClock clock;

    HistoryQuery(HistoryMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    Instant now() {
        return clock.now();
    }

    Asked of(Wanted wanted, int limit) {
        return new Asked(id("component", wanted.component(), mapper::component),
                id("environment", wanted.environment(), mapper::environment), id("host", wanted.host(), mapper::host),
                id("account", wanted.by(), mapper::account), wanted.since().orElse(null), wanted.until().orElse(null),
                limit);
    }

    private static @Nullable Long id(String kind, Optional<String> name, Function<String, Optional<Long>> find) {
        return name.map(each -> find.apply(each)
                .orElseThrow(() -> Refusal.notFound("There is no " + kind + " " + each + ", and was none")))
                .orElse(null);
    }

    /** A time that has both ends. */
    Asked window(Wanted wanted) {
        Instant until = wanted.until().orElseGet(this::now);
        Instant since = wanted.since().orElse(until.minus(USUAL));
        if (!since.isBefore(until) || Duration.between(since, until).compareTo(LONGEST) > 0) {
            throw Refusal.invalid("/since", "should be before until, and at most " + LONGEST.toDays()
                    + " days before it");
        }
        return of(new Wanted(wanted.component(), wanted.environment(), wanted.host(), wanted.by(), Optional.of(since),
                Optional.of(until)), LANES);
    }
}
