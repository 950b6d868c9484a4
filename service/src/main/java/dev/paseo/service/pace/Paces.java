package dev.paseo.service.pace;

import dev.paseo.core.pace.TimePart;
import dev.paseo.core.pace.Summary;
import dev.paseo.core.pace.Summary.Sample;
import dev.paseo.service.pace.PaceMapper.Asked;
import dev.paseo.service.pace.PaceMapper.CountRow;
import dev.paseo.service.pace.PaceMapper.WaitedRow;
import dev.paseo.service.pace.PaceMapper.LeadTimeRow;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Adds up what was kept. */
@Component
class Paces {

    /**
     * How fast and how safely versions moved. Times are in seconds, medians and percentiles by nearest rank.
     *
     * @param environments in the order in which they follow each other; only those with something in them
     */
    record PaceView(Instant since, Instant until, List<EnvironmentPaceView> environments) {}

    /**
     * One environment.
     *
     * @param live     how many promotions went live
     * @param perWeek  how many in a week
     * @param median   from what began a version to its going live here; absent where none did
     * @param ninety   as long as at most 90 % took
     * @param parts    where the time went
     * @param waitedFor whom was waited for; those that took most of the time first
     * @param failed   deployments that were begun and did not go live
     * @param wentBack promotions that were gone back from
     * @param mended   the median of how long those were live that were gone back from
     * @param weeks    the same week by week, each from Monday 0:00 UTC; only those in which something went live
     */
    record EnvironmentPaceView(String environment, int live, double perWeek, Optional<Long> median,
            Optional<Long> ninety, List<PartOfPaceView> parts, List<WaitedForView> waitedFor, int failed, int wentBack,
            Optional<Long> mended,
            List<WeekView> weeks) {}

    /**
     * A part of the time.
     *
     * @param seconds what all of them spent in it together
     * @param median  of it by itself
     */
    record PartOfPaceView(TimePart part, long seconds, long median) {}

    /**
     * Groups of whom some have to say yes; persons that a gate names are not named here. They are waited for at the
     * same time, so these are no parts of a whole.
     *
     * @param count   how many promotions waited for them
     * @param seconds how long all of those together
     */
    record WaitedForView(String asked, int count, long seconds) {}

    /** A week. */
    record WeekView(LocalDate from, int live, long median, int wentBack) {}

    /**
     * One promotion that went live.
     *
     * @param seconds from what began the version to its going live
     * @param parts   where they went, in the order in which they go
     * @param badFor  how long it was live until it was gone back from
     */
    record LeadTimeView(long deployment, String component, String version, String environment, Instant live,
            long seconds,
            List<PartOfLeadTimeView> parts, Optional<Long> badFor) {}

    /** A part of one lead time. */
    record PartOfLeadTimeView(TimePart part, long seconds) {}

    private static final Duration WEEK = Duration.ofDays(7);
    /** 1970-01-05 was one. */
    private static final long MONDAY = 4;

    private final PaceMapper mapper;

    Paces(PaceMapper mapper) {
        this.mapper = mapper;
    }

    /** What the database adds up is added up beside what is added up here: of a year, each takes a while. */
    PaceView of(Asked asked) {
        FutureTask<List<WaitedRow>> waiting = new FutureTask<>(() -> mapper.waitedFor(asked));
        Thread.ofVirtual().name("pace").start(waiting);
        Map<Long, List<PackedLeadTime>> samples = mapper.samples(asked).stream().map(PackedLeadTime::of)
                .collect(Collectors.groupingBy(PackedLeadTime::environment));
        Map<Long, Integer> failed = mapper.failed(asked).stream()
                .collect(Collectors.toMap(CountRow::environment, CountRow::count));
        Map<Long, List<WaitedRow>> waited = outcome(waiting).stream()
                .collect(Collectors.groupingBy(WaitedRow::environment));
        double weeks = (double) Duration.between(asked.since(), asked.until()).toSeconds() / WEEK.toSeconds();
        return new PaceView(asked.since(), asked.until(), mapper.environments().stream()
                .filter(each -> samples.containsKey(each.id()) || failed.containsKey(each.id()))
                .map(each -> environment(each.name(), samples.getOrDefault(each.id(), List.of()),
                        waited.getOrDefault(each.id(), List.of()), failed.getOrDefault(each.id(), 0), weeks))
                .toList());
    }

    private static <T> T outcome(FutureTask<T> task) {
        try {
            return task.get();
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("the service is stopping", stop);
        } catch (ExecutionException failed) {
            throw failed.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(failed);
        }
    }

    private static List<WaitedForView> waitedFor(List<WaitedRow> rows) {
        return rows.stream().map(row -> new WaitedForView(row.asked(), row.count(), row.seconds()))
                .sorted(Comparator.comparing(WaitedForView::seconds).reversed().thenComparing(WaitedForView::asked))
                .toList();
    }

    private static EnvironmentPaceView environment(String name, List<PackedLeadTime> rows, List<WaitedRow> waited,
            int failed, double weeks) {
        Summary all = Summary.of(rows.stream().map(PackedLeadTime::sample).toList());
        Map<Long, List<Sample>> byWeek = new TreeMap<>();
        rows.forEach(row -> byWeek.computeIfAbsent(Math.floorDiv(row.day() - MONDAY, 7), week -> new ArrayList<>())
                .add(row.sample()));
        return new EnvironmentPaceView(name, all.live(), Math.round(all.live() / weeks * 100) / 100.0,
                optional(all.median()), optional(all.ninety()),
                Arrays.stream(TimePart.values()).map(part -> new PartOfPaceView(
                        part, all.parts().get(part), all.medians().getOrDefault(part, 0L))).toList(),
                waitedFor(waited), failed, all.wentBack(), optional(all.mended()),
                byWeek.entrySet().stream().map(week -> {
                    Summary.Brief one = Summary.Brief.of(week.getValue());
                    return new WeekView(LocalDate.ofEpochDay(week.getKey() * 7 + MONDAY), one.live(),
                            one.median().orElseThrow(), one.wentBack());
                }).toList());
    }

    private static Optional<Long> optional(OptionalLong seconds) {
        return seconds.isPresent() ? Optional.of(seconds.getAsLong()) : Optional.empty();
    }

    /** Those that took longest, each with where its time went. */
    List<LeadTimeView> slowest(Asked asked) {
        return mapper.slowest(asked).stream().map(Paces::leadTime).toList();
    }

    private static LeadTimeView leadTime(LeadTimeRow row) {
        Sample sample = PackedLeadTime.of(row.packed()).sample();
        long[] seconds = sample.parts();
        List<PartOfLeadTimeView> parts = new ArrayList<>();
        for (TimePart part : TimePart.values()) {
            parts.add(new PartOfLeadTimeView(part, seconds[part.ordinal()]));
        }
        return new LeadTimeView(row.deployment(), row.component(), row.version(), row.environment(), row.liveAt(),
                Arrays.stream(seconds).sum(), parts,
                sample.badFor() < 0 ? Optional.empty() : Optional.of(sample.badFor()));
    }
}
