package dev.paseo.service.whereabouts;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.run.RunStatus;
import dev.paseo.service.component.Components;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.whereabouts.WhereaboutsColumns.ColumnView;
import dev.paseo.service.whereabouts.WhereaboutsMapper.CellRow;
import dev.paseo.service.whereabouts.WhereaboutsMapper.MarkRow;
import dev.paseo.service.whereabouts.WhereaboutsMapper.OpenRow;
import dev.paseo.service.whereabouts.WhereaboutsPages.Page;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Which version of every component is live where, now and then. */
@Component
class WhereaboutsViews {

    /**
     * A deployment on its way into a place, or the one that last went wrong there; {@code forYou} where the reader is
     * asked.
     */
    record ComingView(long deployment, String version, DeploymentStatus status, Optional<String> requestedBy,
            Instant requestedAt,
            Optional<String> gate, boolean forYou) {}

    /** What keeps the version that is live there from going on: items of its list, time, or a test that failed. */
    record KeptView(long passage, String reason, boolean testFailed) {}

    /**
     * One component in one environment; one that is {@code retired} still runs there; {@code behind} counts versions
     * behind the environment before it; its commits are counted where git has been asked.
     */
    record CellView(String environment, Optional<String> version, Optional<Long> deployment, Optional<Instant> since,
            int hosts, Optional<String> url, boolean retired,
            List<ComingView> coming, Optional<ComingView> trouble, int behind, Optional<Integer> commitsBehind,
            Optional<MarksView> marks, Optional<KeptView> kept) {}

    /**
     * What else is to be known of a place; absent where there is nothing.
     *
     * @param held      why nothing goes there by itself
     * @param differing how many hosts do not have what is live
     * @param drifted   how many have files that are not the version's
     * @param unhealthy how many failed their checks three times in a row
     * @param away      how many are in maintenance
     * @param blocked   the version that is live is blocked
     * @param by        who asked for what is live; absent: the walk
     * @param daysBehind how much older it is than what is live in the environment before
     */
    record MarksView(Optional<String> held, int differing, int drifted, int unhealthy, int away, boolean blocked,
            Optional<String> by, int daysBehind) {}

    record NewestView(long run, RunStatus status, String version, boolean sealed, Instant at) {}

    record RowView(String component, String summary, Map<String, String> labels, Optional<NewestView> newest,
            List<CellView> cells, List<StayView> stays) {}

    /** A version that does not go on to an environment by itself, and why; it is tried again until it can. */
    record StayView(String version, String environment, String reason, Instant since) {}

    /**
     * Which version of every component is live in every environment, and what waits. {@code now} is the service's time;
     * {@code next} is what to send as {@code after} for the components that follow.
     */
    record WhereaboutsView(Instant now, List<ColumnView> environments, List<RowView> rows, Optional<String> next) {}

    private final WhereaboutsPages pages;
    private final WhereaboutsColumns columns;
    private final WhereaboutsMapper mapper;
    private final WaitingGates waits;
    private final Distances distances;

    WhereaboutsViews(WhereaboutsPages pages, WhereaboutsColumns columns, WhereaboutsMapper mapper, WaitingGates waits,
            Distances distances) {
        this.pages = pages;
        this.columns = columns;
        this.mapper = mapper;
        this.waits = waits;
        this.distances = distances;
    }

    /**
     * Shows which version is where, 25 components at a time in the order of their names; {@code component}: only that
     * one.
     */
    WhereaboutsView now(Person person, String component, String after) {
        Page page = pages.of(component, after);
        WhereaboutsColumns.Columns now = columns.now();
        return new WhereaboutsView(now.now(), now.columns(), page.last().isEmpty() ? List.of() : rows(page, person),
                page.next());
    }

    private List<RowView> rows(Page page, Person person) {
        String first = page.first();
        String last = page.last();
        Map<Long, List<OpenRow>> open = mapper.open(first, last).stream()
                .collect(Collectors.groupingBy(OpenRow::placeId));
        Map<Long, OpenRow> troubled = mapper.troubled(first, last).stream()
                .collect(Collectors.toMap(OpenRow::placeId, row -> row));
        Map<Long, WhereaboutsMapper.RunRow> runs = mapper.newestRuns(first, last).stream()
                .collect(Collectors.toMap(WhereaboutsMapper.RunRow::componentId, row -> row));
        Map<Long, List<CellRow>> cells = mapper.cells(first, last).stream()
                .collect(Collectors.groupingBy(CellRow::componentId));
        Map<Long, MarkRow> marks = mapper.marks(first, last).stream()
                .collect(Collectors.toMap(MarkRow::placeId, row -> row));
        Map<Long, Map<String, String>> labels = mapper.labels(first, last).stream()
                .collect(Collectors.groupingBy(WhereaboutsMapper.LabelRow::componentId,
                        Collectors.toMap(WhereaboutsMapper.LabelRow::name, WhereaboutsMapper.LabelRow::value,
                                (one, other) -> one, LinkedHashMap::new)));
        Map<Long, List<StayView>> stays = mapper.stays(first, last).stream()
                .collect(Collectors.groupingBy(WhereaboutsMapper.StayRow::componentId,
                        Collectors.mapping(
                                row -> new StayView(row.version(), row.environment(), row.reason(), row.since()),
                                Collectors.toList())));
        return pages.components(page).stream().map(each -> new RowView(each.name(), each.summary(),
                labels.getOrDefault(each.id(), Map.of()),
                Optional.ofNullable(runs.get(each.id()))
                        .map(run -> new NewestView(run.number(), run.status(), run.version(), run.sealed(), run.at())),
                cells(each, cells.getOrDefault(each.id(), List.of()), new Around(open, troubled, marks), person),
                stays.getOrDefault(each.id(), List.of()))).toList();
    }

    private record Around(Map<Long, List<OpenRow>> open, Map<Long, OpenRow> troubled, Map<Long, MarkRow> marks) {}

    private List<CellView> cells(Components.RegisteredComponent component, List<CellRow> rows, Around around,
            Person person) {
        List<CellView> cells = new ArrayList<>();
        Optional<CellRow> before = Optional.empty();
        for (CellRow row : rows) {
            List<ComingView> coming = around.open().getOrDefault(row.placeId(), List.of()).stream()
                    .map(each -> coming(each, person)).toList();
            Optional<ComingView> trouble = Optional.ofNullable(around.troubled().get(row.placeId()))
                    .map(each -> plain(each));
            cells.add(new CellView(row.environment(), Optional.ofNullable(row.version()),
                    Optional.ofNullable(row.deployment()),
                    Optional.ofNullable(row.since()), row.hosts(), Optional.ofNullable(row.url()), row.retired(),
                    coming, trouble, row.behind(),
                    before.filter(earlier -> row.behind() > 0)
                            .flatMap(earlier -> distances.between(component, row.commit(), earlier.commit())),
                    marks(around, before, row), Optional.ofNullable(row.passage())
                            .map(id -> new KeptView(id, Objects.requireNonNull(row.keeps()), row.testFailed()))));
            before = Optional.of(row);
        }
        return cells;
    }

    private static Optional<MarksView> marks(Around around, Optional<CellRow> before, CellRow row) {
        return Optional.ofNullable(around.marks().get(row.placeId())).map(mark -> new MarksView(
                Optional.ofNullable(mark.held()), mark.differing(), mark.drifted(),
                mark.unhealthy(), mark.away(), mark.blocked(), Optional.ofNullable(mark.requestedBy()),
                before.map(cell -> around.marks().get(cell.placeId())).map(earlier -> days(mark, earlier)).orElse(0)));
    }

    private static int days(MarkRow mark, MarkRow earlier) {
        return mark.sealedAt() == null || earlier.sealedAt() == null ? 0
                : (int) Math.max(0, java.time.Duration.between(mark.sealedAt(), earlier.sealedAt()).toDays());
    }

    private ComingView coming(OpenRow row, Person person) {
        Optional<WaitingGates.Stand> stand = row.status() == DeploymentStatus.WAITING
                ? waits.stand(row.id(), person.id())
                : Optional.empty();
        return new ComingView(row.id(), row.version(), row.status(), Optional.ofNullable(row.requestedBy()),
                row.requestedAt(), stand.map(WaitingGates.Stand::name),
                stand.filter(WaitingGates.Stand::mine).isPresent());
    }

    private static ComingView plain(OpenRow row) {
        return new ComingView(row.id(), row.version(), row.status(), Optional.ofNullable(row.requestedBy()),
                row.requestedAt(), Optional.empty(), false);
    }
}
