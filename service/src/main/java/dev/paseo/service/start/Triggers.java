package dev.paseo.service.start;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile.Start;
import dev.paseo.language.file.PipelineFile;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/** The triggers of a pipeline file as the matching knows them, in the file's order. */
public final class Triggers {

    private Triggers() {}

    public static List<Trigger> of(PipelineFile file) {
        return of(file, name -> name);
    }

    /** @param now the name that a component has now, of one that it had */
    public static List<Trigger> of(PipelineFile file, UnaryOperator<String> now) {
        return file.starts().stream().map(Triggers::of).map(trigger -> switch (trigger) {
            case Trigger.Upstream(var names, var of, var outcomes, boolean same, var novelty) -> new Trigger.Upstream(
                    names.stream().map(now).toList(), of, outcomes, same, novelty);
            case Trigger.Live(String name, String environment) -> new Trigger.Live(now.apply(name), environment);
            default -> trigger;
        }).toList();
    }

    private static Trigger of(Start start) {
        return switch (start) {
            case Start.Push(var branches, var paths) -> new Trigger.Push(patterns(branches), patterns(paths));
            case Start.Preview(var branches) -> new Trigger.Preview(patterns(branches));
            case Start.Tag(String pattern) -> new Trigger.Tag(new BranchPattern(pattern));
            case Start.Clock(String cron, String zone) -> new Trigger.Clock(cron, zone);
            case Start.Upstream(var names, var on, var outcomes, boolean same, var novelty) -> new Trigger.Upstream(
                    names, patterns(on), ends(outcomes), same,
                    novelty.map(each -> Trigger.Novelty.valueOf(each.name())).orElse(Trigger.Novelty.ANY));
            case Start.Live(String component, String environment) -> new Trigger.Live(component, environment);
            case Start.Arrival() -> new Trigger.Arrival();
        };
    }

    private static List<BranchPattern> patterns(List<String> texts) {
        return texts.stream().map(BranchPattern::new).toList();
    }

    private static Set<Trigger.RunEnd> ends(List<PipelineFile.Outcome> outcomes) {
        return outcomes.stream().map(outcome -> Trigger.RunEnd.valueOf(outcome.name()))
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(Trigger.RunEnd.class)));
    }
}
