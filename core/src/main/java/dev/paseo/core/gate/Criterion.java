package dev.paseo.core.gate;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** One condition of a gate. */
public sealed interface Criterion {

    /**
     * People say yes, on the exact subject.
     *
     * @param from            the groups or persons who are asked
     * @param count           how many of them, at least 1
     * @param notBy           who may not decide although asked
     * @param commentRequired whether a decision needs a comment
     * @param within          counted from the request; after it the deployment expires
     * @param escalation      who else is asked when nobody has decided
     * @param unknown         what holds where authors may not decide, and it is not known who one of them is; empty:
     *                        one more
     */
    record Approvals(List<String> from, int count, List<Exclusion> notBy, boolean commentRequired,
            Optional<Duration> within, Optional<Escalation> escalation, Optional<UnknownAuthors> unknown)
            implements
                Criterion {
        public Approvals {
            from = List.copyOf(from);
            notBy = List.copyOf(notBy);
        }

        /** Whether it waits until it is known who all authors are. */
        public boolean asksWho() {
            return unknown.equals(Optional.of(UnknownAuthors.ASK));
        }

        public Approvals(List<String> from, int count, List<Exclusion> notBy, boolean commentRequired,
                Optional<Duration> within, Optional<Escalation> escalation) {
            this(from, count, notBy, commentRequired, within, escalation, Optional.empty());
        }
    }

    /** Somebody under an address that belongs to no account may be one of those who approve. */
    enum UnknownAuthors {
        /** One more approval is wanted: at least one of them is then somebody else's. */
        ONE_MORE,
        /** It waits until somebody says whose address it is. */
        ASK
    }

    /** After this time from the request, {@code to} is asked too. */
    record Escalation(Duration after, String to) {}

    /** Members of these groups, or these persons, tick every item. */
    record Checklist(List<String> from, List<String> items) implements Criterion {
        public Checklist {
            from = List.copyOf(from);
            items = List.copyOf(items);
        }
    }

    /** Live and healthy for so long, in one unbroken stretch; once reached it stays reached. */
    record LiveFor(Duration length) implements Criterion {}

    /** It may begin only within these hours. */
    record Open(Hours hours) implements Criterion {}

    /**
     * A condition over facts.
     *
     * @param name what people are shown instead of it; empty: the condition itself
     */
    record Fact(String condition, String name) implements Criterion {

        public Fact(String condition) {
            this(condition, "");
        }

        /** What people are shown. */
        public String shown() {
            return name.isEmpty() ? condition : name;
        }
    }

    /**
     * Somebody outside answers, asked by a signed request; within this time of the request, else the deployment
     * expires.
     */
    record Outside(String name, String address, Optional<Duration> within) implements Criterion {}

    /**
     * The version has been live in these environments, in all or in any of them, and has left them by their gates
     * onward.
     */
    record Follows(List<String> environments, boolean any) implements Criterion {
        public Follows {
            environments = List.copyOf(environments);
        }
    }

    /** Where the version comes from: one of these branches, a tag, or an upload; nothing said: a trusted branch. */
    record Origin(List<String> branches, List<String> tags, boolean uploads) implements Criterion {
        public static final Origin TRUSTED = new Origin(List.of(), List.of(), false);

        public Origin {
            branches = List.copyOf(branches);
            tags = List.copyOf(tags);
        }
    }

    /** The place is not held, or a person asked. */
    record NotHeld() implements Criterion {}

    /** The environment is not closed, or it is a rollback. */
    record NotClosed() implements Criterion {}

    /** What is live there has passed its gate onward, or failed it, or a person asked. */
    record PreviousPassed() implements Criterion {}

    /** Other components are live there in versions that go with it. */
    record Requires() implements Criterion {}

    /** Who may not decide. */
    enum Exclusion { AUTHORS, REQUESTER }
}
