package dev.paseo.service.restraint;

import dev.paseo.language.calendar.Periods;
import dev.paseo.service.environment.Environments;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The closed periods of environments, as their calendars give them. What was worked out for a day is remembered. */
@Component
public class ClosedPeriods {

    private static final Logger LOG = LoggerFactory.getLogger(ClosedPeriods.class);
    private static final int REMEMBERED = 200;
    private static final Duration AROUND = Duration.ofDays(60);

    private record Day(long environment, long revision, String zone, Instant day) {}

    private final Map<Day, List<Periods.Period>> known = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Day, List<Periods.Period>> eldest) {
            return size() > REMEMBERED;
        }
    };

    /** What is closed from a while before this moment to a while after. */
    public List<Periods.Period> around(Environments.Environment environment, Instant now) {
        Optional<String> calendar = environment.rules().closed();
        if (calendar.isEmpty()) {
            return List.of();
        }
        Day day = new Day(environment.id(), environment.rulesRevision(), environment.zone(),
                now.truncatedTo(ChronoUnit.DAYS));
        synchronized (known) {
            return known.computeIfAbsent(day, key -> read(calendar.get(), key.day().minus(AROUND),
                    key.day().plus(AROUND), ZoneId.of(environment.zone())));
        }
    }

    private static List<Periods.Period> read(String calendar, Instant from, Instant until, ZoneId zone) {
        try {
            return Periods.of(calendar).between(from, until, zone);
        } catch (Periods.NoCalendar wrong) {
            // It was read when it was loaded; if it is not now, nothing may begin rather than anything.
            LOG.error("a calendar of closed periods cannot be read any more: {}", wrong.getMessage());
            return List.of(new Periods.Period(from, until, "its calendar cannot be read"));
        }
    }

    /** The period in which this moment lies, together with those that follow it without a gap. */
    public Optional<Periods.Period> at(Environments.Environment environment, Instant now) {
        List<Periods.Period> all = around(environment, now);
        return all.stream().filter(period -> !period.from().isAfter(now) && period.until().isAfter(now)).findFirst()
                .map(first -> {
                    Instant end = first.until();
                    for (Periods.Period next : all) {
                        end = !next.from().isAfter(end) && next.until().isAfter(end) ? next.until() : end;
                    }
                    return new Periods.Period(first.from(), end, first.summary());
                });
    }
}
