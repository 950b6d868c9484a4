package dev.paseo.core.run;

import java.util.List;
import java.util.stream.Stream;

/**
 * What a stage waits for. All three must hold.
 *
 * @param after    each has passed or warned, or was not wanted
 * @param afterAny each has ended, whatever came of it
 * @param ifFailed at least one has failed; none named asks for none
 */
public record StageDependencies(List<StageKey> after, List<StageKey> afterAny, List<StageKey> ifFailed) {

    public StageDependencies {
        after = List.copyOf(after);
        afterAny = List.copyOf(afterAny);
        ifFailed = List.copyOf(ifFailed);
    }

    /** After these. */
    public static StageDependencies on(StageKey... stages) {
        return new StageDependencies(List.of(stages), List.of(), List.of());
    }

    Stream<StageKey> all() {
        return Stream.of(after, afterAny, ifFailed).flatMap(List::stream);
    }

    /** Whether it runs also when the run is being cancelled. */
    boolean regardless() {
        return !afterAny.isEmpty();
    }
}
