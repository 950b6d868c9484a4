package dev.paseo.service.start;

import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile;
import java.util.List;
import java.util.function.UnaryOperator;

/** The triggers of a pipeline file, in its order, by the names that components have now. */
public final class Triggers {

    private Triggers() {}

    public static List<Trigger> of(PipelineFile file) {
        return of(file, name -> name);
    }

    /** @param now the name that a component has now, of one that it had */
    public static List<Trigger> of(PipelineFile file, UnaryOperator<String> now) {
        return file.starts().stream().map(trigger -> switch (trigger) {
            case Trigger.Upstream(var names, var of, var outcomes, boolean same, var novelty) -> new Trigger.Upstream(
                    names.stream().map(now).toList(), of, outcomes, same, novelty);
            case Trigger.Live(String name, String environment) -> new Trigger.Live(now.apply(name), environment);
            default -> trigger;
        }).toList();
    }
}
