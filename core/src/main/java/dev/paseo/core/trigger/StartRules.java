package dev.paseo.core.trigger;

import dev.paseo.core.cause.Cause;
import java.util.List;
import java.util.Optional;

/** What keeps a trigger that was met from starting a run all the same. */
public final class StartRules {

    private StartRules() {}

    /**
     * Why nothing starts; empty where it does.
     *
     * @param started the number of the run that an earlier trigger of the component started upon the same event
     * @param causes  what led to the event, back to where it began
     */
    public static Optional<String> refusal(String component, Optional<Long> started, List<Cause> causes) {
        if (started.isPresent()) {
            return Optional.of("the trigger before it started " + component + "#" + started.get() + " already");
        }
        return causes.stream()
                .anyMatch(cause -> cause instanceof Cause.Run(String name, long number) && name.equals(component))
                        ? Optional.of("a run of " + component + " led to this: it would make a cycle")
                        : Optional.empty();
    }
}
