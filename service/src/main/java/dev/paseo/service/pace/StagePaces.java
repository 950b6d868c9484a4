package dev.paseo.service.pace;

import dev.paseo.core.pace.StageFigures;
import dev.paseo.core.pace.StageFigures.Attempt;
import dev.paseo.service.pace.StagePaceMapper.AttemptRow;
import dev.paseo.service.pace.StagePaceMapper.Wanted;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Adds up the attempts at stages. */
@Component
class StagePaces {

    /**
     * How long stages take and how often they fail.
     *
     * @param since  of attempts that ended from then on: later than asked for where there are very many
     * @param stages in the order that was asked for
     */
    record StagePacesView(Instant since, Instant until, List<StagePaceView> stages) {}

    /**
     * One stage. Times are in seconds.
     *
     * @param runs    in how many runs it was done, each of its variants by itself
     * @param median  of the attempts that passed, by nearest rank; absent: none did
     * @param ninety  as long as at most 90 % of them took
     * @param spent   what all attempts took together
     * @param failed  how often its last attempt failed
     * @param flaky   how often an attempt failed and a later one of the same run passed
     * @param retried how many attempts there were beyond the first
     */
    record StagePaceView(String component, String stage, int runs, Optional<Double> median, Optional<Double> ninety,
            double spent, int failed, int flaky, int retried) {}

    /** No more attempts are added up at once. */
    static final int MOST = 200_000;

    private record Stage(String component, String name) {}

    private record Figured(Stage stage, StageFigures figures) {}

    private final StagePaceMapper mapper;
    StagePaces(StagePaceMapper mapper) {
        this.mapper = mapper;
    }

    StagePacesView of(Wanted wanted, StageFigures.Order order, int limit) {
        List<AttemptRow> rows = mapper.attempts(wanted);
        Map<Stage, List<Attempt>> attempts = rows.stream().collect(Collectors.groupingBy(
                row -> new Stage(row.component(), row.stage()),
                Collectors.mapping(row -> new Attempt(row.run(), row.variant(), row.attempt(), row.status(),
                        row.millis()), Collectors.toList())));
        List<StagePaceView> stages = attempts.entrySet().stream()
                .map(each -> new Figured(each.getKey(), StageFigures.of(each.getValue())))
                .sorted(Comparator.comparing(Figured::figures, order.first())
                        .thenComparing(each -> each.stage().component()).thenComparing(each -> each.stage().name()))
                .limit(limit).map(StagePaces::view).toList();
        return new StagePacesView(rows.size() < wanted.most() ? wanted.since() : rows.getLast().endedAt(),
                wanted.until(), stages);
    }

    private static StagePaceView view(Figured of) {
        StageFigures figures = of.figures();
        return new StagePaceView(of.stage().component(), of.stage().name(), figures.runs(), seconds(figures.median()),
                seconds(figures.ninety()), figures.spent() / 1000.0, figures.failed(), figures.flaky(),
                figures.retried());
    }

    private static Optional<Double> seconds(OptionalLong millis) {
        return millis.isPresent() ? Optional.of(millis.getAsLong() / 1000.0) : Optional.empty();
    }
}
