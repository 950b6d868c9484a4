package dev.paseo.core.environment;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The ordered environments that a version walks through. Environments of one step lie side by side: the next step
 * begins when the version's passages through all of them have ended.
 */
public record Route(List<Map<String, Mode>> steps) {

    /** Whether the walk enters an environment by itself. */
    public enum Mode { AUTOMATIC, ON_REQUEST }

    public Route {
        List<Map<String, Mode>> kept = new ArrayList<>();
        steps.forEach(step -> kept.add(java.util.Collections.unmodifiableMap(new LinkedHashMap<>(step))));
        steps = List.copyOf(kept);
    }

    public List<String> environments() {
        return steps.stream().flatMap(step -> step.keySet().stream()).toList();
    }

    /** Where the walk goes on to by itself from an environment, as far as nobody has to ask for it; in order. */
    public List<String> onward(String environment) {
        List<String> onward = new ArrayList<>();
        boolean beyond = false;
        for (Map<String, Mode> step : steps) {
            if (beyond) {
                step.forEach((name, mode) -> {
                    if (mode == Mode.AUTOMATIC) {
                        onward.add(name);
                    }
                });
                if (step.containsValue(Mode.ON_REQUEST)) {
                    return onward;
                }
            }
            beyond |= step.containsKey(environment);
        }
        return onward;
    }

    /**
     * The environments that the walk enters by itself now, given those whose passage has ended and those it has
     * entered.
     */
    public List<String> entersNow(Set<String> ended, Set<String> entered) {
        for (Map<String, Mode> step : steps) {
            if (!ended.containsAll(step.keySet())) {
                return step.entrySet().stream()
                        .filter(entry -> entry.getValue() == Mode.AUTOMATIC && !entered.contains(entry.getKey()))
                        .map(Map.Entry::getKey).toList();
            }
        }
        return List.of();
    }
}
