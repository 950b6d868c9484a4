package dev.paseo.service.dryrun;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.Matching.InForce;
import dev.paseo.core.trigger.TriggerDryRun;
import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.start.Triggers;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What other triggers would have started. */
@RestController
@RequestMapping("/api/v1/components/{name}/pipeline")
class TriggerDryRunController {

    /**
     * The text of a pipeline file, and how far to look back.
     *
     * @param days 1 to 365; without: 90
     */
    record TriggerDryRunRequest(@Size(max = 1_000_000) String text, Optional<Integer> days) {}

    /**
     * What the triggers of a text make of what happened.
     *
     * @param events    what was judged: pushes, tags and arrivals of the component, runs and goings live of others that
     *                  a trigger names, and the times of clocks
     * @param all       false: only the newest 1,000
     * @param now       how many start a run by the triggers of the main branch's file
     * @param then      how many would by those of the text
     * @param unknown   how many of which it cannot be told
     * @param differing those that would go otherwise, the newest first
     */
    record TriggerDryRunView(Instant since, Instant until, int events, boolean all, int now, int then, int unknown,
            List<DifferingEventView> differing) {}

    /**
     * Something that would go otherwise.
     *
     * @param why what each trigger of the text says to it
     */
    record DifferingEventView(Instant at, String sentence, TriggerDryRun.Answer now, TriggerDryRun.Answer then,
            List<String> why) {}

    private final Components components;
    private final PipelineChecks checks;
    private final TriggerDryRuns dryRuns;
    private final ServiceClock clock;

    TriggerDryRunController(Components components, PipelineChecks checks, TriggerDryRuns dryRuns, ServiceClock clock) {
        this.components = components;
        this.checks = checks;
        this.dryRuns = dryRuns;
        this.clock = clock;
    }

    /**
     * Holds the triggers of a pipeline file against what happened lately: what would start a run and does not by the
     * file of the main branch, and what no longer would. Starts and changes nothing. What a push changed is judged
     * since the push before it; rules of branches are those of now.
     */
    @PostMapping("/dry-run")
    TriggerDryRunView dryRun(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody TriggerDryRunRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        Instant until = clock.now();
        Instant since = until.minus(DryRunController.lookingBack(request.days()));
        PipelineChecks.Checked checked = checks.check(component, request.text());
        PipelineFile file = checked.file().orElseThrow(() -> Refusal.unprocessable("The pipeline file has problems",
                checked.problems().stream().map(Problem::toString).collect(Collectors.joining("\n"))));
        Optional<PipelineFile> inForce = Optional
                .ofNullable(components.heads(component.id()).get(component.mainBranch()))
                .flatMap(commit -> components.readFile(component, commit).file());
        TriggerDryRuns.Judged judged = dryRuns.of(component, inForce.map(each -> triggers(component, each))
                .orElse(List.of()), triggers(component, file), since, until);
        TriggerDryRun.Result result = judged.result();
        return new TriggerDryRunView(since, until, result.events(), judged.all(), result.now(), result.then(),
                result.unknown(), result.differing().stream().map(each -> new DifferingEventView(each.past().at(),
                        each.past().sentence(), each.now(), each.then(), each.why())).toList());
    }

    private List<InForce> triggers(RegisteredComponent component, PipelineFile file) {
        return InForce.of(component.name(), Triggers.of(file, components::nameNow), components.rules(component.id()),
                component.mainBranch(), component.repository());
    }
}
