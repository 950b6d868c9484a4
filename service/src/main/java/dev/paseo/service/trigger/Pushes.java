package dev.paseo.service.trigger;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.PushTrigger;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.FileInForce;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.source.Mirror;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/**
 * Looks at a repository's heads and starts what moved heads start. A hook or a poll only says that it is worth looking:
 * whoever moves a head from where it was known to be acts on it, so that nothing starts twice.
 */
@Component
class Pushes {

    /** What the move of one branch led to. */
    record Led(String branch, String commit, Optional<RunStarts.Started> run, Optional<String> reason) {}

    private final Components components;
    private final RunStarts starts;
    private final Causes causes;
    private final PushMapper mapper;
    private final Around around;

    /** What every push leaves. */
    @Component
    record Around(Transactions transactions, ServiceClock clock, Telling telling) {}

    Pushes(Components components, RunStarts starts, Causes causes, PushMapper mapper, Around around) {
        this.components = components;
        this.starts = starts;
        this.causes = causes;
        this.mapper = mapper;
        this.around = around;
    }

    List<Led> look(Registered component, Optional<String> pusher) {
        Mirror mirror = components.mirror(component);
        mirror.fetch();
        Map<String, String> known = components.heads(component.id());
        Map<String, String> heads = mirror.heads();
        List<Led> led = new ArrayList<>();
        heads.forEach((branch, commit) -> {
            if (!commit.equals(known.get(branch)) && branch.length() <= 200) {
                moved(component, mirror, branch, Optional.ofNullable(known.get(branch)), commit, pusher).ifPresent(led::add);
            }
        });
        known.forEach((branch, commit) -> {
            if (!heads.containsKey(branch)) {
                components.dropHead(component.id(), branch, commit);
            }
        });
        return led;
    }

    private Optional<Led> moved(Registered component, Mirror mirror, String branch, Optional<String> before, String commit, Optional<String> pusher) {
        FileInForce file = components.readFile(component, commit);
        Mirror.Commit head = mirror.commit(commit);
        Optional<Led> led = around.transactions().in(() -> {
            if (!components.moveHead(component.id(), branch, before, commit, file.id())) {
                return Optional.<Led>empty();
            }
            String by = pusher.filter(name -> !name.isBlank()).orElse(head.address());
            return Optional.of(act(component, branch, head, file, by));
        });
        if (branch.equals(component.mainBranch())) {
            file.file().ifPresent(read -> components.summarise(component.id(), read.summary()));
        }
        return led;
    }

    private Led act(Registered component, String branch, Mirror.Commit head, FileInForce file, String by) {
        Led led = decide(component, branch, head, file, by);
        mapper.add(component.id(), branch, head.id(), by.length() > 200 ? by.substring(0, 200) : by, around.clock().now(),
                led.run().map(RunStarts.Started::id).orElse(null), led.reason().map(why -> why.length() > 2000 ? why.substring(0, 2000) : why).orElse(null));
        around.telling().tell("push", component.name());
        return led;
    }

    private Led decide(Registered component, String branch, Mirror.Commit head, FileInForce file, String by) {
        if (file.file().isEmpty()) {
            String more = file.problems().size() > 1 ? " (and " + (file.problems().size() - 1) + " more)" : "";
            return nothing(branch, head, component.filePath() + ":" + file.problems().getFirst() + more);
        }
        PipelineFile plan = file.file().get();
        Optional<String> empty = RunStarts.nothingToRun(plan);
        if (empty.isPresent()) {
            return nothing(branch, head, empty.get());
        }
        return switch (PushTrigger.decide(branch, plan.pushes(), components.rules(component.id()))) {
            case PushTrigger.Outcome.StartsNothing(String reason) -> nothing(branch, head, reason);
            case PushTrigger.Outcome.Starts(boolean trusted) -> start(component, branch, head, file.id(), plan, trusted, by);
        };
    }

    private Led start(Registered component, String branch, Mirror.Commit head, long file, PipelineFile plan, boolean trusted, String by) {
        try {
            long cause = causes.add(new Cause.Push(component.name(), branch, head.id(), by), OptionalLong.empty());
            return new Led(branch, head.id(), Optional.of(starts.start(
                    new RunStarts.Start(component, branch, head, trusted, file, plan, new RunStarts.Reason(cause, "push", by), null, Map.of()))), Optional.empty());
        } catch (Refusal refused) {
            return nothing(branch, head, refused.getMessage());
        }
    }

    private static Led nothing(String branch, Mirror.Commit head, String reason) {
        return new Led(branch, head.id(), Optional.empty(), Optional.of(reason));
    }
}
