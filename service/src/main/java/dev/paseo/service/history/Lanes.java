package dev.paseo.service.history;

import dev.paseo.core.history.Happening;
import dev.paseo.core.history.Page;
import dev.paseo.core.history.Source;
import dev.paseo.core.history.What;
import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.history.LaneMapper.HeldRow;
import dev.paseo.service.history.LaneMapper.LaneRow;
import dev.paseo.service.history.LaneMapper.StretchRow;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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
     * @param cut   whether there was more than could be told: of these lanes the newest 5,000 times, 1,000 holds and
     *              closures and 1,000 things that went wrong are
     * @param next  goes on after these, as {@code after}; absent where there are no more
     */
    record LanesView(Instant since, Instant until, List<LaneView> lanes, boolean cut, Optional<String> next) {}

    /**
     * One place.
     *
     * @param held   when it was held
     * @param closed when its environment was closed
     * @param wrong  deployments that did not go live, and hosts in trouble
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
    private static final int RESTRAINED = 1_000;

    /** What went wrong in some lanes, and whether there was more of it. */
    private record Wrong(Map<String, List<HistoryController.HappenedView>> byLane, boolean cut) {}

    private final LaneMapper mapper;
    private final Histories histories;

    Lanes(LaneMapper mapper, Histories histories) {
        this.mapper = mapper;
        this.histories = histories;
    }

    LanesView of(Asked asked, Optional<String> host, String after) {
        Instant since = Objects.requireNonNull(asked.since());
        Instant until = Objects.requireNonNull(asked.until());
        List<LaneRow> rows = mapper.lanes(asked, after);
        if (rows.isEmpty()) {
            return new LanesView(since, until, List.of(), false, Optional.empty());
        }
        List<Long> places = rows.stream().map(LaneRow::place).toList();
        List<StretchRow> stretches = mapper.within(places, since, until, STRETCHES);
        Map<Long, List<StretchRow>> live = stretches.stream().collect(Collectors.groupingBy(StretchRow::place));
        List<HeldRow> restrained = mapper.restrained(places, since, until, RESTRAINED);
        Map<Optional<Long>, List<HeldRow>> held = restrained.stream()
                .collect(Collectors.groupingBy(row -> Optional.ofNullable(row.place())));
        Map<Optional<String>, List<HeldRow>> closed = restrained.stream()
                .collect(Collectors.groupingBy(row -> Optional.ofNullable(row.environment())));
        Wrong wrong = wrong(asked, host, rows);
        List<LaneView> lanes = rows.stream().map(row -> new LaneView(row.component(), row.environment(),
                live.getOrDefault(row.place(), List.of()).reversed().stream().map(Lanes::live).toList(),
                restrained(held.getOrDefault(Optional.of(row.place()), List.of())),
                restrained(closed.getOrDefault(Optional.of(row.environment()), List.of())),
                wrong.byLane().getOrDefault(lane(row.component(), row.environment()), List.of())))
                .toList();
        LaneRow last = rows.getLast();
        return new LanesView(since, until, lanes,
                stretches.size() == STRETCHES || restrained.size() == RESTRAINED || wrong.cut(),
                rows.size() < asked.limit() ? Optional.empty() : Optional.of(last.cursor()));
    }

    /** Deployments that did not go live, and hosts in trouble; the newest first. */
    private Wrong wrong(Asked asked, Optional<String> host, List<LaneRow> rows) {
        Asked most = new Asked(null, null, asked.host(), null, asked.since(), asked.until(), WRONG);
        List<Happening> ended = mapper.ended(rows.stream().map(LaneRow::place).toList(), most).stream()
                .map(row -> Histories.happening(Source.DEPLOYMENT, What.ENDED, row)).toList();
        List<Happening> troubles = troubles(most, host, rows);
        Page page = Page.of(List.of(ended, troubles), Optional.empty(), WRONG);
        return new Wrong(page.happenings().stream().map(HistoryController::view).collect(Collectors.groupingBy(
                each -> lane(each.component().orElse(""), each.environment()))),
                page.next().isPresent()
                        || Stream.of(ended, troubles).anyMatch(each -> each.size() == WRONG));
    }

    private List<Happening> troubles(Asked asked, Optional<String> host, List<LaneRow> rows) {
        return mapper.troubles(new LaneMapper.TrailAsked(List.copyOf(Histories.TROUBLES.keySet()),
                rows.stream().map(LaneRow::component).distinct().toList(),
                rows.stream().map(LaneRow::environment).distinct().toList(), host.orElse(null),
                Histories.second(Objects.requireNonNull(asked.since())),
                Histories.second(Objects.requireNonNull(asked.until())), asked.limit())).stream()
                .map(histories::trouble).toList();
    }

    private static String lane(String component, String environment) {
        return component + " " + environment;
    }

    private static LiveTimeView live(StretchRow row) {
        return new LiveTimeView(row.version(), row.deployment(), row.fromAt(), Optional.ofNullable(row.toAt()),
                row.emergency());
    }

    private static List<RestrainedView> restrained(List<HeldRow> rows) {
        return rows.stream().map(row -> new RestrainedView(row.fromAt(), Optional.ofNullable(row.toAt()), row.by(),
                row.reason())).toList().reversed();
    }
}
