package dev.paseo.core.gate;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** One condition of a gate. */
public sealed interface Criterion {

    /**
     * People say yes, on the exact subject.
     *
     * @param from            the group whose members are asked
     * @param count           how many of them, at least 1
     * @param notBy           who may not decide although in the group
     * @param commentRequired whether a decision needs a comment
     * @param within          counted from the request; after it the deployment expires
     */
    record Approvals(String from, int count, List<Exclusion> notBy, boolean commentRequired, Optional<Duration> within)
            implements Criterion {
        public Approvals {
            notBy = List.copyOf(notBy);
        }
    }

    /** The version has been live in all of these environments and left their exit gates. */
    record Follows(List<String> environments) implements Criterion {
        public Follows {
            environments = List.copyOf(environments);
        }
    }

    /** The version comes from one of these branches; empty: from a trusted one. */
    record Branches(List<String> patterns) implements Criterion {
        public Branches {
            patterns = List.copyOf(patterns);
        }
    }

    /** The place is not held, or a person asked. */
    record NotHeld() implements Criterion {}

    /** The environment is not closed, or it is a rollback. */
    record NotClosed() implements Criterion {}

    /** Other components are live there in versions that go with it. */
    record Requires() implements Criterion {}

    /** Who may not decide. */
    enum Exclusion { AUTHORS, REQUESTER }
}
