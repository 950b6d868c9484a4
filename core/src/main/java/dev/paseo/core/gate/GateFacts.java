package dev.paseo.core.gate;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a gate is judged on, at one moment.
 *
 * @param subject     the exact subject now
 * @param requester   who asked; empty for an automatic deployment, and at a gate onward
 * @param authors     the accounts that wrote or pushed a commit between what is live and what is proposed
 * @param unknown     the addresses and names among them that belong to no account, and pushes of which nobody told who
 *                    pushed them:
 *                    {@value #PUSHER} and the commit and branch
 * @param people      who is meant by the names that criteria give
 * @param version     what is known of the version
 * @param requestedAt what times are counted from
 * @param said        what people and others have said so far
 * @param around      how things stand in the place and its environment
 */
public record GateFacts(
        Subject subject, String requester, Set<String> authors, Set<String> unknown, People people, OfVersion version,
        Instant requestedAt, Said said, Around around) {

    /** How a push begins of which nobody told who pushed it. */
    public static final String PUSHER = "the pusher of ";

    /**
     * Who is meant by names.
     *
     * @param members  of each group; a person's name stands for that person
     * @param standIns who decides in whose place now: deputies, and those to whom a decision was handed on
     */
    public record People(Map<String, Set<String>> members, Map<String, Set<String>> standIns) {
        public People {
            members = Map.copyOf(members);
            standIns = Map.copyOf(standIns);
        }
    }

    /**
     * What is known of the version.
     *
     * @param passed     the environments in which its passage has ended
     * @param tags       its second names, which tags gave it
     * @param uploaded   whether it was built elsewhere
     * @param stretch    how long it has been live and healthy where that counts
     * @param conditions what came of the conditions over facts
     */
    public record OfVersion(Set<String> passed, String branch, boolean trusted, List<String> tags, boolean uploaded,
            Stretch stretch, Map<String, Held> conditions) {
        public OfVersion {
            passed = Set.copyOf(passed);
            tags = List.copyOf(tags);
            conditions = Map.copyOf(conditions);
        }
    }

    /**
     * @param where   the environment
     * @param longest the longest stretch that has ended
     * @param since   when the stretch under way began
     */
    public record Stretch(String where, Duration longest, Optional<Instant> since) {
        public static final Stretch NOT_AT_ALL = new Stretch("", Duration.ZERO, Optional.empty());

        /**
         * How it was at a moment that is past.
         *
         * @param lived when the version was live there, healthy or not
         * @return no longer than the longest healthy one, as far as that is known
         */
        public Stretch asOf(List<Lived> lived, Instant moment) {
            Duration healthy = until(moment);
            Duration ended = lived.stream().filter(each -> each.to().filter(to -> !to.isAfter(moment)).isPresent())
                    .map(each -> Duration.between(each.from(), each.to().orElseThrow()))
                    .max(Comparator.naturalOrder()).orElse(Duration.ZERO);
            Optional<Instant> begun = lived.stream()
                    .filter(each -> each.from().isBefore(moment)
                            && each.to().filter(to -> !to.isAfter(moment)).isEmpty())
                    .map(Lived::from).max(Comparator.naturalOrder());
            Instant earliest = moment.minus(healthy);
            return new Stretch(where, ended.compareTo(healthy) < 0 ? ended : healthy,
                    begun.map(from -> from.isBefore(earliest) ? earliest : from));
        }

        /** The longest one until now. */
        Duration until(Instant now) {
            return since.map(begun -> Duration.between(begun, now)).filter(current -> current.compareTo(longest) > 0)
                    .orElse(longest);
        }

        /**
         * The one that counts of those in the environments that are followed: where any of them will do the one that is
         * farthest, else the one that is least far, since all have to do.
         */
        public static Stretch counting(List<Stretch> all, boolean any, Instant now) {
            Comparator<Stretch> farthest = Comparator.comparing(stretch -> stretch.until(now));
            return all.stream().min(any ? farthest.reversed() : farthest).orElse(NOT_AT_ALL);
        }
    }

    /** @param to empty while it still is */
    public record Lived(Instant from, Optional<Instant> to) {}

    /**
     * What came of a condition: whether it holds, empty where a fact of it is not there; and the facts it looked at.
     */
    public record Held(Optional<Boolean> holds, String facts) {}

    /**
     * What was said so far.
     *
     * @param answers of those outside, by the name of the criterion
     */
    public record Said(List<GateDecision> decisions, List<Tick> ticks, Map<String, Answer> answers) {
        public Said {
            decisions = List.copyOf(decisions);
            ticks = List.copyOf(ticks);
            answers = Map.copyOf(answers);
        }

        /** What had been said by then. */
        Said asOf(Instant moment) {
            Map<String, Answer> then = new HashMap<>(answers);
            then.values().removeIf(answer -> answer.at().isAfter(moment));
            return new Said(decisions.stream().filter(decision -> !decision.at().isAfter(moment)).toList(),
                    ticks.stream().filter(tick -> !tick.at().isAfter(moment)).toList(), then);
        }
    }

    /** An answer from outside; {@code yes} is empty while only asked. */
    public record Answer(Optional<Boolean> yes, String words, Instant at) {}

    /**
     * How things stand in the place and its environment.
     *
     * @param held         why the place is held, and by whom
     * @param closed       why the environment is closed
     * @param requirements what the version needs beside it
     * @param tested       the version that is live there and has not passed its gate onward yet
     */
    public record Around(boolean rollback, Optional<String> held, Optional<Closed> closed,
            List<Requirement> requirements, Optional<String> tested) {
        public static final Around PLAIN = new Around(false, Optional.empty(), Optional.empty(), List.of());

        public Around(boolean rollback, Optional<String> held, Optional<Closed> closed,
                List<Requirement> requirements) {
            this(rollback, held, closed, requirements, Optional.empty());
        }
    }

    /** @param until when it opens by itself */
    public record Closed(String sentence, Optional<Instant> until) {}

    /** @param live the version that is live there, if any */
    public record Requirement(String component, String range, Optional<String> live, boolean met) {}

    /**
     * How they were at a moment that is past, as far as is known: of what counts as said, passed and lived through only
     * what was so by then; the members of groups, the branch and the evidence are those of now.
     */
    public GateFacts asOf(Instant moment, Set<String> passed, Stretch stretch) {
        OfVersion then = new OfVersion(passed, version.branch(), version.trusted(), version.tags(),
                version.uploaded(), stretch, version.conditions());
        return new GateFacts(subject, requester, authors, unknown, people, then, requestedAt, said.asOf(moment),
                around);
    }

    public GateFacts {
        authors = Set.copyOf(authors);
    }
}
