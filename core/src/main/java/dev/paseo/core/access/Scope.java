package dev.paseo.core.access;

import java.util.Collection;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * All that a token may of what its owner may.
 *
 * @param actions   at least one
 * @param component the only component, where there is one
 */
public record Scope(Set<Action> actions, Optional<String> component) {

    public Scope {
        actions = Set.copyOf(actions);
        if (actions.isEmpty()) {
            throw new IllegalArgumentException("a scope has at least one action");
        }
    }

    /** A limit that is not known limits everything: nothing is allowed by mistake. */
    public static Optional<Scope> of(Collection<String> words, Optional<String> component) {
        Set<Action> actions = words.stream().flatMap(word -> Action.named(word).stream()).collect(Collectors.toSet());
        return actions.isEmpty() ? Optional.empty() : Optional.of(new Scope(actions, component));
    }

    boolean covers(Action action, Optional<String> inComponent) {
        return actions.contains(action) && (component.isEmpty() || component.equals(inComponent));
    }

    /** As it completes "may ...". */
    public String words() {
        String all = actions.stream().sorted().map(Action::words).collect(Collectors.joining("; "));
        return component.map(name -> actions.size() == 1 ? all + " of " + name : "(for " + name + " alone) " + all)
                .orElse(all);
    }
}
