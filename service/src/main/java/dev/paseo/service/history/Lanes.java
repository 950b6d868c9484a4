package dev.paseo.service.history;

import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.history.HistoryMapper.HeldRow;
import dev.paseo.service.history.HistoryMapper.LaneRow;
import dev.paseo.service.history.HistoryMapper.StretchRow;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What was live in each place over a time. */
@Component
class Lanes {

    /** More stretches than these are not told at once. */
    private static final int STRETCHES = 5_000;

    /**
     * What was live over a time.
     *
     * @param lanes by component, then as environments follow each other; at most 50
     * @param cut   whether there was more than could be told: only the newest 5,000 times are
     * @param next  goes on after these, as {@code after}; absent where there are no more
     */
    record LanesView(Instant since, Instant until, List<LaneView> lanes, boolean cut, Optional<String> next) {}

    /**
     * One place.
     *
     * @param held   when it was held
     * @param closed when its environment was closed
     * @param wrong  deployments that did not go live, and hosts in trouble; of all lanes the newest 1,000
     */
    record LaneView(String component, String environment, List<LiveTimeView> live, List<RestrainedView> held,
            List<RestrainedView> closed, List<HistoryController.HappenedView> wrong) {}

    /**
     * A time for which a version was live.
     *
     * @param until not there: it is live
     */
    record LiveTimeView(String version, long deployment, Instant from, Optional<Instant> until, boolean emergency) {}

    /**
     * A time for which something was held or closed.
     *
     * @param until not there: it is
     */
    record RestrainedView(Instant from, Optional<Instant> until, String by, String reason) {}

    private static final int WRONG = 1_000;

    private final HistoryMapper mapper;
    private final Histories histories;

    Lanes(HistoryMapper mapper, Histories histories) {
        this.mapper = mapper;
        this.histories = histories;
    }

    LanesView of(Asked asked, Histories.Names names, String after) {
        Instant since = Objects.requireNonNull(asked.since());
        Instant until = Objects.requireNonNull(asked.until());
        List<LaneRow> rows = mapper.lanes(asked, after);
        if (rows.isEmpty()) {
            return new LanesView(since, until, List.of(), false, Optional.empty());
        }
        List<Long> places = rows.stream().map(LaneRow::place).toList();
        List<StretchRow> stretches = mapper.within(places, since, until, STRETCHES);
        Map<Long, List<StretchRow>> live = stretches.stream().collect(Collectors.groupingBy(StretchRow::place));
        List<HeldRow> restrained = mapper.restrained(places, since, until);
        List<HistoryController.HappenedView> wrong = histories.troubles(new Asked(asked.component(),
                asked.environment(), asked.host(), null, since, until, WRONG), names).stream()
                .map(HistoryController::view).toList();
        List<LaneView> lanes = rows.stream().map(row -> new LaneView(row.component(), row.environment(),
                live.getOrDefault(row.place(), List.of()).reversed().stream().map(Lanes::live).toList(),
                restrained(restrained, each -> Objects.equals(each.place(), row.place())),
                restrained(restrained, each -> Objects.equals(each.environment(), row.environment())),
                wrong.stream().filter(each -> each.environment().equals(row.environment())
                        && each.component().equals(Optional.of(row.component()))).toList()))
                .toList();
        LaneRow last = rows.getLast();
        return new LanesView(since, until, lanes, stretches.size() == STRETCHES, rows.size() < asked.limit()
                ? Optional.empty() : Optional.of(last.cursor()));
    }

    private static LiveTimeView live(StretchRow row) {
        return new LiveTimeView(row.version(), row.deployment(), row.fromAt(), Optional.ofNullable(row.toAt()),
                row.emergency());
    }

    private static List<RestrainedView> restrained(List<HeldRow> rows, Predicate<HeldRow> which) {
        return rows.stream().filter(which).map(row -> new RestrainedView(row.fromAt(),
                Optional.ofNullable(row.toAt()), row.by(), row.reason())).toList().reversed();
    }
}
