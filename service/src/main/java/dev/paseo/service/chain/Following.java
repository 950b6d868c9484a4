package dev.paseo.service.chain;

import dev.paseo.core.text.Word;
import dev.paseo.core.cause.Consequences.RecordedCause;
import dev.paseo.core.cause.Consequences.Node;
import dev.paseo.core.cause.Consequences.Thing;
import dev.paseo.core.cause.Consequences;
import dev.paseo.core.cause.Spent;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.chain.ChainMapper.CauseRow;
import dev.paseo.service.clock.ServiceClock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Follows a cause forward to everything that it led to. */
@Component
class Following {

    /** Milliseconds of waiting, queueing and working. */
    record SpentView(long waiting, long queueing, long working) {}

    /** Something used as it was, instead of being built again. */
    record UsedView(String component, String version) {}

    /**
     * A run, a deployment, or a trigger that started nothing, with what it led to.
     *
     * @param kind   {@code run}, {@code deployment} or {@code nothing}
     * @param number of the run or the deployment
     * @param where  the branch of a run, the environment of a deployment, the words of a trigger
     * @param used   versions of other components that a run took
     * @param kept   how many of its stages began with folders kept from an earlier run
     */
    record LedView(String kind, String component, Optional<Long> number, Optional<String> version, String where,
            String status, Optional<String> reason,
            Instant at, Optional<Instant> startedAt, Optional<Instant> endedAt, Optional<SpentView> spent,
            List<UsedView> used, int kept, List<LedView> led) {

        private LedView with(List<LedView> more) {
            return new LedView(kind, component, number, version, where, status, reason, at, startedAt, endedAt, spent,
                    used, kept, more);
        }
    }

    private final ChainMapper mapper;
    private final Causes causes;
    private final ServiceClock clock;

    Following(ChainMapper mapper, Causes causes, ServiceClock clock) {
        this.mapper = mapper;
        this.causes = causes;
        this.clock = clock;
    }

    List<LedView> from(long cause) {
        List<CauseRow> rows = mapper.led(cause);
        List<RecordedCause> kept = causes.kept(rows.stream().map(CauseRow::id).toList());
        List<Long> ids = kept.stream().map(RecordedCause::id).toList();
        List<Thing<LedView>> things = Stream.of(runs(ids), deployments(ids), nothing(ids)).flatMap(List::stream)
                .sorted(Comparator.comparing((Thing<LedView> thing) -> thing.value().at())).toList();
        return Consequences.tree(things, kept).stream().map(Following::view).toList();
    }

    /** The subtree below a run or a deployment. */
    Optional<LedView> find(List<LedView> tree, String kind, String component, long number) {
        for (LedView each : tree) {
            boolean here = each.kind().equals(kind) && each.number().equals(Optional.of(number))
                    && (component.isEmpty() || each.component().equals(component));
            Optional<LedView> found = here ? Optional.of(each) : find(each.led(), kind, component, number);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private static LedView view(Node<LedView> node) {
        return node.value().with(node.led().stream().map(Following::view).toList());
    }

    private List<Thing<LedView>> runs(List<Long> causes) {
        List<ChainMapper.RunRow> rows = mapper.runs(causes);
        if (rows.isEmpty()) {
            return List.of();
        }
        List<Long> ids = rows.stream().map(ChainMapper.RunRow::id).toList();
        Map<Long, List<ChainMapper.StretchRow>> stages = mapper.stages(ids).stream()
                .collect(Collectors.groupingBy(ChainMapper.StretchRow::runId));
        Map<Long, List<ChainMapper.TakenRow>> taken = mapper.taken(ids).stream()
                .collect(Collectors.groupingBy(ChainMapper.TakenRow::runId));
        Instant now = clock.now();
        List<Thing<LedView>> things = new ArrayList<>();
        for (ChainMapper.RunRow row : rows) {
            List<ChainMapper.StretchRow> worked = stages.getOrDefault(row.id(), List.of());
            Spent spent = Spent.of(row.createdAt(), Optional.ofNullable(row.startedAt()),
                    Optional.ofNullable(row.endedAt()),
                    worked.stream()
                            .map(stage -> new Spent.Stretch(stage.startedAt(), Optional.ofNullable(stage.endedAt())))
                            .toList(),
                    now);
            things.add(new Thing<>(List.of(Consequences.run(row.component(), row.number())), row.causeId(),
                    new LedView("run", row.component(),
                            Optional.of(row.number()), Optional.of(row.version()), row.branch(), Word.of(row.status()),
                            Optional.ofNullable(row.reason()), row.createdAt(),
                            Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()),
                            Optional.of(view(spent)),
                            taken.getOrDefault(row.id(), List.of()).stream()
                                    .map(each -> new UsedView(each.component(), each.version())).toList(),
                            (int) worked.stream().filter(stage -> stage.reused() != null).count(), List.of())));
        }
        return things;
    }

    private List<Thing<LedView>> deployments(List<Long> causes) {
        Instant now = clock.now();
        return mapper.deployments(causes).stream().map(row -> {
            Optional<Instant> done = Optional.ofNullable(row.liveAt()).or(() -> Optional.ofNullable(row.endedAt()));
            Spent spent = Spent.of(row.requestedAt(), Optional.ofNullable(row.startedAt()), done,
                    Stream.ofNullable(row.startedAt()).map(from -> new Spent.Stretch(from, done)).toList(), now);
            return new Thing<>(
                    List.of(Consequences.deployment(row.id()),
                            Consequences.live(row.component(), row.version(), row.environment())),
                    row.causeId(),
                    new LedView("deployment", row.component(), Optional.of(row.id()), Optional.of(row.version()),
                            row.environment(), Word.of(row.status()),
                            Optional.ofNullable(row.reason()), row.requestedAt(), Optional.ofNullable(row.startedAt()),
                            done, Optional.of(view(spent)), List.of(), 0, List.of()));
        }).toList();
    }

    private List<Thing<LedView>> nothing(List<Long> causes) {
        return mapper.nothing(causes).stream()
                .map(row -> new Thing<>(List.<String>of(), row.causeId(),
                        new LedView("nothing", row.component(), Optional.empty(),
                                Optional.empty(), row.words(), "not started", Optional.of(row.reason()), row.at(),
                                Optional.empty(), Optional.empty(), Optional.empty(),
                                List.of(), 0, List.of())))
                .toList();
    }

    private static SpentView view(Spent spent) {
        return new SpentView(spent.waiting().toMillis(), spent.queueing().toMillis(), spent.working().toMillis());
    }
}
