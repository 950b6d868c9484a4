package dev.paseo.core.environment;

import dev.paseo.core.decision.Decision;
import java.util.List;

/** A version's stay in an environment: opened when it first goes live there, ended by its exit gate. */
public record Passage(Status status) {

    public enum Status { OPEN, ENDED }

    /** What can happen to a passage. */
    public sealed interface Event {
        /** Its exit criteria were judged. */
        record ExitJudged(boolean open) implements Event {}
    }

    /** What follows. */
    public sealed interface Effect {
        /** The walk goes on from here. */
        record WalkOn() implements Effect {}
    }

    public static Passage opened() {
        return new Passage(Status.OPEN);
    }

    public static Decision<Passage, Effect> decide(Passage passage, Event event) {
        return switch (event) {
            case Event.ExitJudged(boolean open) when passage.status == Status.ENDED -> Decision.refused("the passage has ended");
            case Event.ExitJudged(boolean open) when open ->
                    Decision.moved(new Passage(Status.ENDED), List.of(new Effect.WalkOn()));
            case Event.ExitJudged(boolean open) -> Decision.moved(passage, List.of());
        };
    }
}
