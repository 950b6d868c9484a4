package dev.paseo.service.run;

import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.NearestName;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** Starts runs that a person asks for, of the newest commit of a branch. */
@Component
public class PersonStarts {

    private final Components components;
    private final RunStarts starts;
    private final Causes causes;
    private final Transactions transactions;

    PersonStarts(Components components, RunStarts starts, Causes causes, Transactions transactions) {
        this.components = components;
        this.starts = starts;
        this.causes = causes;
        this.transactions = transactions;
    }

    RegisteredComponent component(String name) {
        return components.named(name);
    }

    public RunStarts.Started start(String name, Optional<String> wantedBranch, Optional<String> upTo,
            Map<String, String> answers, Cause.Asked cause) {
        RegisteredComponent component = components.named(name);
        String branch = wantedBranch.orElse(component.mainBranch());
        Map<String, String> heads = components.heads(component.id());
        String head = Optional.ofNullable(heads.get(branch)).orElseThrow(() -> Refusal.notFound(
                name + " has no branch " + branch + NearestName.hint(branch, heads.keySet())));
        FileInForce file = components.readFile(component, head);
        PipelineFile plan = plan(component, branch, file);
        RunStarts.nothingToRun(component, plan).ifPresent(reason -> {
            throw Refusal.conflict(reason);
        });
        upTo.filter(last -> plan.route().stream().noneMatch(step -> step.containsKey(last))).ifPresent(last -> {
            throw Refusal.invalid("/upTo", last + " is not on the route of " + name);
        });
        BranchRules rules = components.rules(component.id());
        Mirror.Commit commit = components.mirror(component).tagged(head);
        return transactions.in(
                () -> starts.start(new RunStarts.Start(component, branch, commit, rules.trusts(branch), file.id(), plan,
                        reason(cause), upTo.orElse(null), answers)));
    }

    private static PipelineFile plan(RegisteredComponent component, String branch, FileInForce file) {
        return file.file().orElseThrow(() -> Refusal.unprocessable("The pipeline file has problems",
                component.filePath() + " of " + branch + ": " + file.problems().getFirst()
                        + (file.problems().size() > 1 ? " (and " + (file.problems().size() - 1) + " more)" : "")));
    }

    private RunStarts.Reason reason(Cause.Asked cause) {
        return new RunStarts.Reason(causes.add(cause, OptionalLong.empty()), "asked", cause.by());
    }

    /**
     * Runs the same commit once more, from its own file and with the same answers, as a run of its own: the pieces that
     * its file uses are looked up anew, as at every start.
     */
    RunStarts.Started again(Run run, Map<String, String> answers, String by) {
        RegisteredComponent component = components.byId(run.componentId());
        FileInForce before = components.file(run.pipelineFileId());
        FileInForce file = before.used().isEmpty() ? before : components.readFile(component, run.commitId());
        PipelineFile plan = plan(component, run.branch(), file);
        BranchRules rules = components.rules(component.id());
        Mirror.Commit commit = components.mirror(component).tagged(run.commitId());
        Cause.Asked cause = new Cause.Asked(by, Optional.of(run.component() + "#" + run.number() + " once more"));
        return transactions.in(() -> starts.start(new RunStarts.Start(component, run.branch(), commit,
                rules.trusts(run.branch()), file.id(), plan,
                reason(cause), run.upTo(), answers)));
    }
}
