package dev.paseo.service.pace;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.pace.StageFigures;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.pace.StagePaceMapper.Wanted;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Worded;
import java.time.Instant;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How long stages and deployments take, and what changed when that did. */
@RestController
@RequestMapping("/api/v1/pace")
class StagePaceController {

    private final StagePaces stages;
    private final FigureShifts shifts;
    private final Components components;
    private final Environments environments;
    private final ServiceClock clock;

    StagePaceController(StagePaces stages, FigureShifts shifts, Components components, Environments environments,
            ServiceClock clock) {
        this.stages = stages;
        this.shifts = shifts;
        this.components = components;
        this.environments = environments;
        this.clock = clock;
    }

    /**
     * How long the stages of runs take, how often they fail, and which are tried again; at most 400 days, and of those
     * the newest 200,000 attempts.
     *
     * @param order what comes first: spent (all attempts together), slowest (by the median), flakiest, retried,
     *              failing; not there: spent
     * @param since not there: 90 days before the end
     * @param until not there: now
     * @param limit at most so many, 1 to 500
     */
    @GetMapping("/stages")
    StagePaces.StagePacesView stages(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<Instant> since,
            @RequestParam Optional<Instant> until, @RequestParam(defaultValue = "spent") String order,
            @RequestParam(defaultValue = "50") int limit) {
        Permission.require(person, Action.LOOK, component, Optional.empty());
        PaceController.Period period = PaceController.period(since, until, clock.now());
        StageFigures.Order first = Worded.read(StageFigures.Order.class, "/order", order);
        return stages.of(new Wanted(component.map(name -> components.named(name).id()).orElse(null),
                label.orElse(null), period.since(), period.until(), StagePaces.MOST), first,
                Math.clamp(limit, 1, 500));
    }

    /**
     * When a stage of a component, or its deployments into an environment, became slower or faster or began to fail or
     * ceased to, and what was otherwise from then on: agents, the pipeline file, pieces, upstream versions, settings,
     * secrets, hosts. Of the newest 200.
     *
     * @param stage       its name; instead of an environment
     * @param environment instead of a stage
     */
    @GetMapping("/shifts")
    FigureShifts.ShiftsView shifts(@AuthenticationPrincipal Person person, @RequestParam String component,
            @RequestParam Optional<String> stage, @RequestParam Optional<String> environment) {
        Permission.require(person, Action.LOOK, Optional.of(component), environment);
        if (stage.isPresent() == environment.isPresent()) {
            throw Refusal.invalid("/stage", "should be given, or an environment, and not both");
        }
        return stage.map(name -> shifts.ofStage(components.named(component).id(), name))
                .orElseGet(() -> shifts.ofPlace(environments.place(component, environment.orElseThrow()).id()));
    }
}
