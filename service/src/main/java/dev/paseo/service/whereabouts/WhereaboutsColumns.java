package dev.paseo.service.whereabouts;

import dev.paseo.language.calendar.Periods;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.restraint.ClosedPeriods;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** The environments, in their order: what asks people there, how many hosts, and what closes them now. */
@Component
class WhereaboutsColumns {

    /** @param closedByCalendar a closed period of its rules closes it, which nobody opens by hand */
    record ColumnView(String name, boolean gated, int hosts, Optional<String> closed, Optional<Instant> closedUntil,
            boolean closedByCalendar) {}

    /** What they are, and when that was. */
    record Columns(Instant now, List<ColumnView> columns) {}

    private final WhereaboutsMapper mapper;
    private final Environments environments;
    private final ClosedPeriods periods;
    private final ServiceClock clock;

    WhereaboutsColumns(WhereaboutsMapper mapper, Environments environments, ClosedPeriods periods,
            ServiceClock clock) {
        this.mapper = mapper;
        this.environments = environments;
        this.periods = periods;
        this.clock = clock;
    }

    Columns now() {
        Instant now = clock.now();
        Map<Long, WhereaboutsMapper.ClosedRow> closed = mapper.closed(now).stream()
                .collect(Collectors.toMap(WhereaboutsMapper.ClosedRow::environmentId, row -> row));
        Map<String, Integer> hosts = environments.hostCounts();
        return new Columns(now, environments.all().stream().map(known -> {
            Optional<WhereaboutsMapper.ClosedRow> by = Optional.ofNullable(closed.get(known.id()));
            Optional<Periods.Period> period = by.isPresent() ? Optional.empty() : periods.at(known, now);
            return new ColumnView(known.name(), known.rules().asksPeople(), hosts.getOrDefault(known.name(), 0),
                    by.map(WhereaboutsMapper.ClosedRow::reason).or(() -> period.map(Periods.Period::summary)),
                    by.map(WhereaboutsMapper.ClosedRow::until).or(() -> period.map(Periods.Period::until)),
                    period.isPresent());
        }).toList());
    }
}
