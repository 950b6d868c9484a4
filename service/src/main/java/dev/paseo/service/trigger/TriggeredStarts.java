package dev.paseo.service.trigger;

import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching.Considered;
import dev.paseo.core.trigger.Matching.Finding;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.trigger.InForce.PlanInForce;
import dev.paseo.service.trigger.Starting.Outcome;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Runs that a trigger starts: at once, or as soon as there is what it waits for. */
@Component
class TriggeredStarts {

    private final RunStarts starts;
    private final UpstreamOffers offers;

    TriggeredStarts(RunStarts starts, UpstreamOffers offers) {
        this.starts = starts;
        this.offers = offers;
    }

    /** In the transaction under way; why no run was started, where none was. */
    Outcome outcome(Happened happened, Considered each, PlanInForce plan, long cause) {
        String words = each.of().trigger().words();
        try {
            return switch (each.finding()) {
                case Finding.Weighs(String branch, boolean trusted) -> weigh(happened, each, plan, cause);
                default -> new Outcome(each.of().component(), each.of().position(), words,
                        Optional.of(start(happened, each, plan, cause,
                                happened.brought().stream().toList())),
                        Optional.empty());
            };
        } catch (Refusal refused) {
            return new Outcome(each.of().component(), each.of().position(), words, Optional.empty(),
                    Optional.of(String.valueOf(refused.getMessage())));
        }
    }

    private Outcome weigh(Happened happened, Considered each, PlanInForce plan, long cause) {
        Trigger.Upstream trigger = (Trigger.Upstream) each.of().trigger();
        long line = starts.holdLine(plan.component().id(), branch(each));
        return switch (offers.choose(trigger, happened, line)) {
            case UpstreamOffers.Offer.Waits(String why) -> new Outcome(each.of().component(), each.of().position(),
                    trigger.words(), Optional.empty(), Optional.of(why));
            case UpstreamOffers.Offer.Takes(List<RunStarts.Upstream> versions) -> new Outcome(each.of().component(),
                    each.of().position(), trigger.words(),
                    Optional.of(start(happened, each, plan, cause, versions)), Optional.empty());
        };
    }

    private static String branch(Considered each) {
        return switch (each.finding()) {
            case Finding.Starts(String branch, boolean trusted) -> branch;
            case Finding.Weighs(String branch, boolean trusted) -> branch;
            case Finding.StartsNothing nothing -> throw new IllegalStateException("it starts nothing");
        };
    }

    private RunStarts.Started start(Happened happened, Considered each, PlanInForce plan, long cause,
            List<RunStarts.Upstream> upstream) {
        RegisteredComponent component = plan.component();
        Mirror.Commit commit = plan.commit();
        String branch = branch(each);
        boolean trusted = each.of().rules().trusts(branch);
        RunStarts.Reason reason = new RunStarts.Reason(cause, happened.reasonKind(), happened.by(),
                happened.event() instanceof Event.Arrived ? List.of() : upstream,
                happened.event() instanceof Event.Arrived arrived
                        ? upstream.stream().findFirst()
                                .map(brought -> new RunStarts.Arrived(brought.version(), arrived.version()))
                        : Optional.empty());
        return starts.start(new RunStarts.Start(component, branch, commit, trusted, plan.file(),
                plan.plan().orElseThrow(), reason, null, Map.of()));
    }
}
