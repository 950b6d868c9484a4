package dev.paseo.service.start;

import dev.paseo.core.trigger.Cycles;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.clock.ClockTimes;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.start.StartTriggerMapper.Row;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;

/** The triggers of all main branches' files, by what they wait for. */
@Component
public class StartTriggers {

    /** From a component to one that it starts. */
    public record Edge(String upstream, String downstream, String kind, String environment) {}

    /** A clock whose time has come. */
    public record Due(long component, int position, String cron, String zone, Instant at) {}

    private static final String UPSTREAM = "upstream";
    private static final String LIVE = "live";

    private final StartTriggerMapper mapper;
    private final ServiceClock clock;

    StartTriggers(StartTriggerMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /** Main branches whose file's triggers are not in force yet. */
    public Map<Long, Long> stale() {
        Map<Long, Long> files = new HashMap<>();
        mapper.stale().forEach(row -> files.put(row.component(), row.file()));
        return files;
    }

    /** Puts a file's triggers in force, in the transaction under way. */
    public void putInForce(long component, long fileId, PipelineFile file, UnaryOperator<String> nameNow) {
        mapper.drop(component);
        List<Trigger> triggers = Triggers.of(file, nameNow);
        for (int at = 0; at < triggers.size(); at++) {
            add(component, at, triggers.get(at));
        }
        mapper.refreshed(component, fileId);
    }

    /** A file with problems leaves the triggers as they were; what they start is then refused with the problem. */
    public void leave(long component, long fileId) {
        mapper.refreshed(component, fileId);
    }

    private void add(long component, int position, Trigger trigger) {
        switch (trigger) {
            case Trigger.Upstream upstream -> new LinkedHashSet<>(upstream.components()).forEach(
                    source -> mapper.add(new Row(component, position, UPSTREAM, source, "", null, null, null)));
            case Trigger.Live(String source, String environment) -> mapper
                    .add(new Row(component, position, LIVE, source, environment, null, null, null));
            case Trigger.Clock(String cron, String zone) -> mapper
                    .add(new Row(component, position, "clock", "", "", cron, zone,
                            ClockTimes.next(cron, zone, clock.now()).orElse(null)));
            default -> {}
        }
    }

    /** Components with a trigger that waits for runs of this one. */
    public List<Long> onRunsOf(String source) {
        return mapper.downstream(source, UPSTREAM);
    }

    /** Components with a trigger that waits for this one to be live somewhere. */
    public List<Long> onLive(String source) {
        return mapper.downstream(source, LIVE);
    }

    public List<Edge> edges() {
        return mapper.edges().stream()
                .map(row -> new Edge(row.source(), row.component(), row.kind(), row.environment())).toList();
    }

    public List<Due> due() {
        return mapper.due(clock.now()).stream()
                .map(row -> new Due(row.component(), row.position(), row.cron(), row.zone(), row.nextAt())).toList();
    }

    /** Moves a clock on past now; false where another replica did. */
    public boolean fire(Due due) {
        return mapper.fire(due.component(), due.position(), due.at(),
                ClockTimes.next(due.cron(), due.zone(), clock.now()).orElse(null)) == 1;
    }

    /**
     * How this file's triggers and those in force would start each other for ever: each component of the cycle, the
     * first one again at its end.
     */
    public Optional<List<String>> cycle(String component, PipelineFile file, UnaryOperator<String> nameNow) {
        Map<String, Set<String>> downstream = new HashMap<>();
        mapper.edges().stream().filter(edge -> !edge.component().equals(component))
                .forEach(edge -> downstream.computeIfAbsent(edge.source(), name -> new LinkedHashSet<>())
                        .add(edge.component()));
        Triggers.of(file, nameNow).forEach(trigger -> sources(trigger)
                .forEach(source -> downstream.computeIfAbsent(source, name -> new LinkedHashSet<>()).add(component)));
        return Cycles.through(component, downstream);
    }

    private static List<String> sources(Trigger trigger) {
        return switch (trigger) {
            case Trigger.Upstream upstream -> upstream.components();
            case Trigger.Live(String source, String environment) -> List.of(source);
            default -> List.of();
        };
    }
}
