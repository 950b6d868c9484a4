package dev.paseo.service.pace;

import dev.paseo.core.pace.Shift;
import dev.paseo.core.pace.Shifts;
import dev.paseo.service.database.Json;
import dev.paseo.service.pace.StagePaceMapper.FactRow;
import dev.paseo.service.pace.StagePaceMapper.PointRow;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Says when a stage or a deployment became slower or began to fail, and what was otherwise from then on. */
@Component
class FigureShifts {

    /** So many of the newest are looked at. */
    static final int MOST = 200;

    private static final TypeReference<Map<String, Long>> REVISIONS = new TypeReference<>() {};

    /**
     * How a figure went.
     *
     * @param points the newest at the end, at most 200
     * @param shifts where it moved and stayed moved, the newest first
     */
    record ShiftsView(List<PointView> points, List<ShiftView> shifts) {}

    /**
     * An attempt at a stage, or a deployment.
     *
     * @param number  of the run, or of the deployment
     * @param seconds how long it took
     */
    record PointView(Instant at, long number, String version, double seconds, boolean failed) {}

    /**
     * A shift.
     *
     * @param point       the first point after it, counted from 0
     * @param before      the median in seconds, or of failures the percentage
     * @param differences what was otherwise before; what is another each time is left out
     */
    record ShiftView(Shift.Kind kind, int point, Instant at, double before, double after,
            List<DifferenceView> differences) {}

    /**
     * A fact that had other values before.
     *
     * @param before the most frequent first, at most three
     * @param after  likewise
     */
    record DifferenceView(String fact, List<ValueView> before, List<ValueView> after) {}

    /** A value, in so many of so many. */
    record ValueView(String value, int count, int of) {}

    private final StagePaceMapper mapper;
    private final Json json;

    FigureShifts(StagePaceMapper mapper, Json json) {
        this.mapper = mapper;
        this.json = json;
    }

    ShiftsView ofStage(long component, String stage) {
        List<PointRow> rows = mapper.ofStage(component, stage, MOST).reversed();
        Map<Long, Map<String, String>> agents = rows.isEmpty() ? Map.of()
                : facts(mapper.agentsOfStages(ids(rows, PointRow::run)), "");
        return view(rows, row -> {
            Map<String, String> facts = new TreeMap<>(agents.getOrDefault(row.id(), Map.of()));
            facts.put("branch", row.branch());
            if (!row.variant().isEmpty()) {
                facts.put("variant", row.variant());
            }
            facts.put("files reused", Boolean.TRUE.equals(row.reused()) ? "yes" : "no");
            return facts;
        });
    }

    ShiftsView ofPlace(long place) {
        List<PointRow> rows = mapper.ofPlace(place, MOST).reversed();
        Map<Long, List<FactRow>> hosts = rows.isEmpty() ? Map.of()
                : mapper.hostsOf(ids(rows, PointRow::id)).stream().collect(Collectors.groupingBy(FactRow::of));
        return view(rows, row -> {
            List<FactRow> of = hosts.getOrDefault(row.id(), List.of());
            Map<String, String> facts = new TreeMap<>();
            facts.put("kind", row.branch());
            facts.put("settings", "revision " + row.settings());
            facts.put("hosts", distinct(of, FactRow::name));
            facts.put("agents", distinct(of, FactRow::value));
            json.read(Objects.requireNonNullElse(row.secrets(), "{}"), REVISIONS)
                    .forEach((name, revision) -> facts.put("secret " + name, "revision " + revision));
            return facts;
        });
    }

    private static String distinct(List<FactRow> rows, Function<FactRow, String> what) {
        return rows.stream().map(what).filter(text -> !text.isEmpty()).distinct().sorted()
                .collect(Collectors.joining(", "));
    }

    private ShiftsView view(List<PointRow> rows, Function<PointRow, Map<String, String>> own) {
        Map<Long, Map<String, String>> upstream = new HashMap<>();
        Map<Long, Map<String, String>> pieces = new HashMap<>();
        List<Long> runs = ids(rows, PointRow::run);
        List<Long> files = ids(rows, PointRow::fileId);
        if (!runs.isEmpty()) {
            upstream.putAll(facts(mapper.upstream(runs), "upstream "));
            pieces.putAll(facts(mapper.pieces(files), "piece "));
        }
        Map<String, String> texts = new HashMap<>();
        List<Shifts.Point> points = new ArrayList<>();
        for (PointRow row : rows) {
            Map<String, String> facts = new TreeMap<>(own.apply(row));
            if (row.run() != null && row.fileText() != null && row.fileCommit() != null) {
                facts.putAll(upstream.getOrDefault(row.run(), Map.of()));
                facts.putAll(pieces.getOrDefault(row.fileId(), Map.of()));
                facts.put("pipeline file", "as of " + texts.computeIfAbsent(row.fileText(),
                        any -> row.fileCommit().substring(0, Math.min(8, row.fileCommit().length()))));
            }
            points.add(new Shifts.Point(row.millis(), row.failed(), facts));
        }
        return new ShiftsView(rows.stream().map(row -> new PointView(row.startedAt(), row.number(), row.version(),
                row.millis() / 1000.0, row.failed())).toList(),
                Shifts.of(points).stream().map(shift -> view(shift, rows)).toList());
    }

    private static ShiftView view(Shift shift, List<PointRow> rows) {
        boolean times = shift.kind() == Shift.Kind.SLOWER || shift.kind() == Shift.Kind.FASTER;
        double unit = times ? 1000.0 : 1;
        return new ShiftView(shift.kind(), shift.at(), rows.get(shift.at()).startedAt(), shift.before() / unit,
                shift.after() / unit, shift.differences().stream()
                        .map(each -> new DifferenceView(each.fact(), values(each.before()), values(each.after())))
                        .toList());
    }

    private static List<ValueView> values(List<Shift.Value> values) {
        return values.stream().map(each -> new ValueView(each.value(), each.count(), each.of())).toList();
    }

    private static List<Long> ids(List<PointRow> rows, Function<PointRow, Long> which) {
        Set<Long> ids = rows.stream().map(which).filter(Objects::nonNull)
                .collect(Collectors.toCollection(LinkedHashSet::new));
        return List.copyOf(ids);
    }

    /** What there is of each; of a name that is there twice both, since either may be why. */
    private static Map<Long, Map<String, String>> facts(List<FactRow> rows, String before) {
        Map<Long, Map<String, String>> facts = new HashMap<>();
        rows.forEach(row -> facts.computeIfAbsent(row.of(), any -> new TreeMap<>()).merge(before + row.name(),
                row.value(), (one, other) -> one.equals(other) ? one : one + ", " + other));
        return facts;
    }
}
