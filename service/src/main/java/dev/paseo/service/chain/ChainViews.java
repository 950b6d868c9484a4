package dev.paseo.service.chain;

import dev.paseo.core.run.RunStatus;
import dev.paseo.service.chain.Following.LedView;
import dev.paseo.service.component.Components;
import dev.paseo.service.start.StartTriggers;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Upstream and downstream across components, and what one change led to. */
@Component
class ChainViews {

    private static final int MOST_CHANGES = 30;

    /** The newest run of a component's main branch. */
    record NewestRunView(long number, RunStatus status, String version, String commitSummary, Instant at) {}

    record LiveInView(String environment, String version) {}

    record MemberView(String component, Optional<NewestRunView> newest, List<LiveInView> live) {}

    /**
     * What last happened upstream, and what the downstream component made of it.
     *
     * @param run    that it started
     * @param reason why it started none
     */
    record LastView(String sentence, Optional<Long> run, Optional<RunStatus> status, Optional<String> version,
            Optional<String> reason, Instant at) {}

    /** @param on {@code runs}, or the environments in which going live starts the downstream one */
    record EdgeView(String upstream, String downstream, List<String> on, Optional<LastView> last) {}

    /** Something that came from outside and started a run. */
    record ChangeView(long event, String component, String sentence, Instant at) {}

    record ChainView(List<MemberView> components, List<EdgeView> edges, List<ChangeView> changes) {}

    private final ChainMapper mapper;
    private final Components components;
    private final StartTriggers triggers;
    private final Following following;

    ChainViews(ChainMapper mapper, Components components, StartTriggers triggers, Following following) {
        this.mapper = mapper;
        this.components = components;
        this.triggers = triggers;
        this.following = following;
    }

    /** All components, what starts what, and the newest changes. */
    ChainView chain() {
        Map<String, ChainMapper.NewestRow> newest = mapper.newest().stream()
                .collect(Collectors.toMap(ChainMapper.NewestRow::component, row -> row, (one, other) -> one));
        Map<String, List<ChainMapper.LiveRow>> live = mapper.live().stream()
                .collect(Collectors.groupingBy(ChainMapper.LiveRow::component));
        List<MemberView> members = components.all().stream().map(each -> new MemberView(each.name(),
                Optional.ofNullable(newest.get(each.name()))
                        .map(row -> new NewestRunView(row.number(), row.status(), row.version(), row.commitSummary(),
                                row.at())),
                live.getOrDefault(each.name(), List.of()).stream()
                        .map(row -> new LiveInView(row.environment(), row.version())).toList()))
                .toList();
        return new ChainView(members, edges(), mapper.changes(MOST_CHANGES).stream()
                .map(row -> new ChangeView(row.id(), row.component(), row.sentence(), row.at())).toList());
    }

    private record Pair(String upstream, String downstream) {}

    private List<EdgeView> edges() {
        Map<Pair, LastView> last = new LinkedHashMap<>();
        mapper.last()
                .forEach(row -> last.putIfAbsent(new Pair(row.upstream(), row.downstream()),
                        new LastView(row.sentence(), Optional.ofNullable(row.run()),
                                Optional.ofNullable(row.status()), Optional.ofNullable(row.version()),
                                Optional.ofNullable(row.reason()), row.at())));
        Map<Pair, Set<String>> on = new LinkedHashMap<>();
        triggers.edges()
                .forEach(edge -> on
                        .computeIfAbsent(new Pair(edge.upstream(), edge.downstream()), pair -> new LinkedHashSet<>())
                        .add(edge.environment().isEmpty() ? "runs" : edge.environment()));
        List<EdgeView> edges = new ArrayList<>();
        on.forEach((pair, what) -> edges.add(new EdgeView(pair.upstream(), pair.downstream(), List.copyOf(what),
                Optional.ofNullable(last.get(pair)))));
        return edges;
    }

    /** What an event led to, across all components. */
    List<LedView> ofEvent(long id) {
        return mapper.causeOfEvent(id).map(following::from).orElse(List.of());
    }

    List<LedView> ofRun(String component, long number) {
        long cause = mapper.causeOfRun(component, number)
                .orElseThrow(() -> Refusal.notFound("There is no run " + component + "#" + number));
        return following.find(following.from(cause), "run", component, number).map(LedView::led).orElse(List.of());
    }

    List<LedView> ofDeployment(long id) {
        long cause = mapper.causeOfDeployment(id).orElseThrow(() -> Refusal.notFound("There is no deployment " + id));
        return following.find(following.from(cause), "deployment", "", id).map(LedView::led).orElse(List.of());
    }

    /** Lists everything that a version led to. */
    List<LedView> ofVersion(String component, String number) {
        return following.from(mapper.causeOfVersion(component, number)
                .orElseThrow(() -> Refusal.notFound(component + " has no version " + number)));
    }
}
