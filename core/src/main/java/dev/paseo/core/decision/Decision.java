package dev.paseo.core.decision;

import java.util.List;

/**
 * The result of deciding about an event.
 *
 * @param <S> the state that was decided about
 * @param <E> the effects that follow
 */
public sealed interface Decision<S, E> {

    /** The event counts: this is the state now, and these effects follow, in this order. */
    record Moved<S, E>(S state, List<E> effects) implements Decision<S, E> {
        public Moved {
            effects = List.copyOf(effects);
        }
    }

    /** The event does not count here; nothing changes. The reason is a sentence for the person who asked. */
    record Refused<S, E>(String reason) implements Decision<S, E> {}

    static <S, E> Decision<S, E> moved(S state, List<E> effects) {
        return new Moved<>(state, effects);
    }

    static <S, E> Decision<S, E> refused(String reason) {
        return new Refused<>(reason);
    }
}
