package dev.paseo.core.environment;

import dev.paseo.core.decision.Decision;
import java.util.List;

/**
 * A version's stay in an environment: opened when it first goes live there, ended by its gate onward.
 *
 * @param settled whether it stayed live and was tested; its gate onward is judged from then on
 */
public record Passage(Status status, boolean settled) {

    public enum Status { OPEN, ENDED }

    /** What can happen to a passage. */
    public sealed interface PassageEvent {
        /** It stayed live and was tested. */
        record Settled() implements PassageEvent {}

        /** The criteria of its gate onward were judged. */
        record ExitJudged(boolean open) implements PassageEvent {}
    }

    /** What follows. */
    public sealed interface Effect {
        /** The walk goes on from here. */
        record WalkOn() implements Effect {}
    }

    /** Why a version whose test of what is live failed does not go on. */
    public static String stays(String failure) {
        return "A test of what is live failed: " + failure
                + ". It goes on when the test passes: redeploy it, and it is tested again.";
    }

    public static Passage opened() {
        return new Passage(Status.OPEN, false);
    }

    public static Decision<Passage, Effect> decide(Passage passage, PassageEvent event) {
        if (passage.status == Status.ENDED) {
            return Decision.refused("the passage has ended");
        }
        return switch (event) {
            case PassageEvent.Settled() -> Decision.moved(new Passage(Status.OPEN, true), List.of());
            case PassageEvent.ExitJudged(boolean open) when open && passage.settled -> Decision
                    .moved(new Passage(Status.ENDED, true), List.of(new Effect.WalkOn()));
            case PassageEvent.ExitJudged(boolean open) -> Decision.moved(passage, List.of());
        };
    }
}
