package dev.paseo.service.trigger;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.text.Shortened;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching;
import dev.paseo.core.trigger.Matching.Considered;
import dev.paseo.core.trigger.Matching.Finding;
import dev.paseo.core.trigger.StartRules;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.trigger.InForce.PlanInForce;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Component;

/** Starts what an event starts, and writes down what each trigger made of it, in one transaction. */
@Component
public class Starting {

    /** What an event led to: of each trigger considered the run that it started or the reason why it did not. */
    public record Led(long event, List<Outcome> outcomes, Optional<String> reason) {

        public Optional<RunStarts.Started> run() {
            return outcomes.stream().flatMap(outcome -> outcome.run().stream()).findFirst();
        }

        /** Why nothing was started, in one sentence; empty where something was. */
        public Optional<String> why() {
            return run().isPresent() ? Optional.empty() : reason.or(() -> Optional.of(String.join("; ",
                    outcomes.stream().map(outcome -> outcome.words() + ": " + outcome.reason().orElse("")).toList())));
        }
    }

    record Outcome(String component, int position, String words, Optional<RunStarts.Started> run,
            Optional<String> reason) {}

    private final EventMapper mapper;
    private final InForce inForce;
    private final TriggeredStarts triggered;
    private final Causes causes;
    private final Changes changes;

    Starting(EventMapper mapper, InForce inForce, TriggeredStarts triggered, Causes causes, Changes changes) {
        this.mapper = mapper;
        this.inForce = inForce;
        this.triggered = triggered;
        this.causes = causes;
        this.changes = changes;
    }

    /** What happened starts what it starts; empty where it was told before. */
    Optional<Led> happened(Happened happened) {
        return happened(happened, () -> true);
    }

    /** @param first done in the same transaction; false where somebody else was faster */
    Optional<Led> happened(Happened happened, BooleanSupplier first) {
        InForce.Found found = inForce.concernedBy(happened);
        if (elsewhere(happened) && found.triggers().isEmpty() && found.broken().isEmpty()) {
            return Optional.empty();
        }
        List<Considered> considered = Matching.match(happened.event(),
                found.triggers().stream().map(InForce.Standing::trigger).toList());
        Map<Considered, PlanInForce> plans = new LinkedHashMap<>();
        for (Considered each : considered) {
            if (!(each.finding() instanceof Finding.StartsNothing)) {
                plans.put(each, inForce.plan(happened, found.of(each.of())));
            }
        }
        return changes
                .in(() -> first.getAsBoolean() ? record(happened, found, considered, plans) : Optional.empty());
    }

    /** What only other components could wait for is not worth a record where none does. */
    private static boolean elsewhere(Happened happened) {
        return happened.event() instanceof Event.RunEnded || happened.event() instanceof Event.WentLive;
    }

    /** Something that can start nothing, whatever the triggers say; told once. */
    Optional<Led> refused(Happened happened, String reason) {
        return changes.in(() -> {
            EventMapper.NewEvent row = new EventMapper.NewEvent(happened, reason, changes.now());
            return mapper.add(row) == 0 ? Optional.<Led>empty()
                    : Optional.of(new Led(row.id, List.of(), Optional.of(reason)));
        });
    }

    private Optional<Led> record(Happened happened, InForce.Found found, List<Considered> considered,
            Map<Considered, PlanInForce> plans) {
        EventMapper.NewEvent row = new EventMapper.NewEvent(happened, reason(happened, found, considered).orElse(null),
                changes.now());
        if (mapper.add(row) == 0) {
            return Optional.empty();
        }
        long cause = causes.add(happened.cause(), happened.because());
        mapper.because(row.id, cause);
        List<Outcome> outcomes = new ArrayList<>();
        found.broken().forEach(broken -> outcomes.add(new Outcome(broken.component().name(), 0, "its triggers",
                Optional.empty(), Optional.of(broken.problem()))));
        Map<String, Long> started = new LinkedHashMap<>();
        for (Considered each : considered) {
            Outcome outcome = outcome(happened, each, Optional.ofNullable(plans.get(each)), cause, started);
            outcome.run().ifPresent(run -> started.put(outcome.component(), run.number()));
            outcomes.add(outcome);
        }
        for (Outcome outcome : outcomes) {
            mapper.consider(row.id, inForce.id(outcome.component()), happened.about().id(), outcome.position(),
                    Shortened.to(outcome.words(), 700),
                    outcome.run().map(RunStarts.Started::id).orElse(null),
                    outcome.reason().map(why -> Shortened.to(why, 2000)).orElse(null));
        }
        changes.publish("trigger", happened.about().name());
        return Optional.of(new Led(row.id, outcomes, Optional.ofNullable(row.reason)));
    }

    /** Why there was no trigger to consider. */
    private static Optional<String> reason(Happened happened, InForce.Found found, List<Considered> considered) {
        if (found.problem().isPresent() || !considered.isEmpty() || !found.broken().isEmpty()) {
            return found.problem();
        }
        return Optional.of("the pipeline file names no triggers"
                + (happened.event() instanceof Event.Arrived ? ": it walks by itself" : ""));
    }

    private Outcome outcome(Happened happened, Considered each, Optional<PlanInForce> plan, long cause,
            Map<String, Long> started) {
        String component = each.of().component();
        String words = each.of().trigger().words();
        int position = each.of().position();
        Optional<String> reason = switch (each.finding()) {
            case Finding.StartsNothing(String why) -> Optional.of(why);
            case Finding.Starts(String branch, boolean trusted) -> refusal(happened, component, plan, started);
            case Finding.Weighs(String branch, boolean trusted) -> refusal(happened, component, plan, started);
        };
        if (reason.isPresent()) {
            return new Outcome(component, position, words, Optional.empty(), reason);
        }
        return triggered.outcome(happened, each, plan.orElseThrow(), cause);
    }

    private Optional<String> refusal(Happened happened, String component, Optional<PlanInForce> plan,
            Map<String, Long> started) {
        if (plan.flatMap(PlanInForce::problem).isPresent()) {
            return plan.flatMap(PlanInForce::problem);
        }
        List<Cause> led = happened.because().isEmpty() ? List.of()
                : causes.chain(happened.because().getAsLong()).stream().map(link -> link.cause()).toList();
        return StartRules.refusal(component, Optional.ofNullable(started.get(component)), led);
    }
}
