package dev.paseo.service.dryrun;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching.InForce;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.core.trigger.TriggerDryRun;
import dev.paseo.core.trigger.TriggerDryRun.Past;
import dev.paseo.language.clock.ClockTimes;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.source.Mirror;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Gathers what happened lately that triggers of a component could be for, and holds others against it. */
@Component
class TriggerDryRuns {

    /** No more events are judged. */
    static final int MOST = 1000;
    /** Of no more pushes git is asked what they changed. */
    private static final int MOST_DIFFERENCES = 200;
    private static final int MOST_PATHS = 10_000;

    private final TriggerDryRunMapper mapper;
    private final Components components;
    private final Causes causes;

    TriggerDryRuns(TriggerDryRunMapper mapper, Components components, Causes causes) {
        this.mapper = mapper;
        this.components = components;
        this.causes = causes;
    }

    /**
     * What came of it.
     *
     * @param all false: only the newest were judged
     */
    record Judged(boolean all, TriggerDryRun.Result result) {}

    /** Of the newest from a moment on, the newest first. */
    Judged of(RegisteredComponent component, List<InForce> now, List<InForce> tried, Instant since, Instant until) {
        List<Trigger> both = Stream.concat(now.stream(), tried.stream()).map(InForce::trigger).toList();
        List<Past> events = new ArrayList<>(own(component, both, since));
        events.addAll(elsewhere(both, since));
        TriggerDryRun.clocks(now, tried).forEach(clock -> strikes(component, clock, since, until, events));
        events.sort(Comparator.comparing(Past::at).reversed());
        boolean all = events.size() <= MOST;
        return new Judged(all, TriggerDryRun.of(all ? events : events.subList(0, MOST), now, tried));
    }

    private List<Past> own(RegisteredComponent component, List<Trigger> triggers, Instant since) {
        boolean paths = triggers.stream().anyMatch(trigger -> trigger instanceof Trigger.Push push
                && !push.paths().isEmpty());
        List<TriggerDryRunMapper.OwnRow> rows = mapper.own(component.id(), since, MOST + 1);
        List<Past> events = new ArrayList<>();
        int asked = 0;
        for (int at = 0; at < rows.size(); at++) {
            TriggerDryRunMapper.OwnRow row = rows.get(at);
            Cause cause = causes.cause(row.causeId());
            if (cause instanceof Cause.Push push) {
                Optional<List<String>> changed = paths && asked++ < MOST_DIFFERENCES
                        ? changed(component, push, rows.subList(at + 1, rows.size())) : Optional.empty();
                events.add(new Past(new Event.Pushed(component.name(), push.branch(), push.commit(), changed),
                        row.sentence(), row.at(), changed.isPresent()));
            } else if (cause instanceof Cause.Tag tag) {
                events.add(new Past(new Event.Tagged(component.name(), tag.tag(), tag.commit(),
                        Optional.ofNullable(row.branch()), Optional.empty()), row.sentence(), row.at(), true));
            } else if (row.kind().equals("arrival")) {
                events.add(new Past(new Event.Arrived(component.name(), ""), row.sentence(), row.at(), true));
            }
        }
        return events;
    }

    /** What changed since the push before it to the same branch; empty where it is not known any more. */
    private Optional<List<String>> changed(RegisteredComponent component, Cause.Push push,
            List<TriggerDryRunMapper.OwnRow> earlier) {
        Optional<String> before = earlier.stream().filter(row -> row.kind().equals("push")
                && push.branch().equals(row.branch()) && row.commitId() != null)
                .map(TriggerDryRunMapper.OwnRow::commitId).findFirst();
        try {
            Mirror mirror = components.mirror(component);
            return before.map(commit -> mirror.changed(commit, push.commit(), MOST_PATHS));
        } catch (RuntimeException gone) {
            // Commits that no branch holds any more are not in the mirror for good.
            return Optional.empty();
        }
    }

    private List<Past> elsewhere(List<Trigger> triggers, Instant since) {
        List<String> upstream = triggers.stream().filter(Trigger.Upstream.class::isInstance)
                .map(Trigger.Upstream.class::cast).flatMap(each -> each.components().stream()).distinct().toList();
        List<String> live = triggers.stream().filter(Trigger.Live.class::isInstance).map(Trigger.Live.class::cast)
                .map(Trigger.Live::component).distinct().toList();
        List<Past> events = new ArrayList<>();
        if (!upstream.isEmpty()) {
            mapper.ended(upstream, since, MOST + 1).forEach(row -> end(row).ifPresent(end -> events.add(new Past(
                    new Event.RunEnded(row.component(), row.number(), row.branch(),
                            row.branch().equals(row.mainBranch()),
                            end, Optional.ofNullable(row.repository())),
                    row.component() + "#" + row.number() + " ended " + end.word(), row.endedAt(), true))));
        }
        if (!live.isEmpty()) {
            mapper.live(live, since, MOST + 1).forEach(row -> events.add(new Past(
                    new Event.WentLive(row.component(), row.version(), row.environment()), row.component() + " "
                            + row.version() + " live in " + row.environment(),
                    row.liveAt(), true)));
        }
        return events;
    }

    private static Optional<Trigger.RunEnd> end(TriggerDryRunMapper.EndedRow row) {
        return Stream.of(Trigger.RunEnd.values()).filter(end -> end.name().equals(row.status().name())).findFirst();
    }

    private static void strikes(RegisteredComponent component, Trigger.Clock clock, Instant since, Instant until,
            List<Past> events) {
        Optional<Instant> at = ClockTimes.next(clock.cron(), clock.zone(), since);
        for (int count = 0; count <= MOST && at.filter(until::isAfter).isPresent(); count++) {
            events.add(new Past(new Event.Fired(component.name(), clock.cron(), clock.zone(), at.get(), false),
                    "clock " + clock.cron() + ", " + clock.zone(), at.get(), true));
            at = ClockTimes.next(clock.cron(), clock.zone(), at.get());
        }
    }
}
