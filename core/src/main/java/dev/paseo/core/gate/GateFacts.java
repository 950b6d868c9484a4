package dev.paseo.core.gate;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a gate is judged on, at one moment.
 *
 * @param subject     the digest of the exact subject now
 * @param requester   who asked; empty for an automatic deployment
 * @param authors     the accounts that wrote or pushed a commit between what is live and what is proposed
 * @param members     the members of each group named by a criterion
 * @param passed      the environments in which the version's passage has ended
 * @param around      how things stand in the place and its environment
 */
public record GateFacts(
        String subject, String requester, Set<String> authors, Map<String, Set<String>> members, Set<String> passed,
        String branch, boolean trusted, Instant requestedAt, List<Ruling> rulings, Around around) {

    /**
     * How things stand in the place and its environment.
     *
     * @param held         why the place is held, and by whom
     * @param closed       why the environment is closed
     * @param requirements what the version needs beside it
     */
    public record Around(boolean rollback, Optional<String> held, Optional<Closed> closed, List<Requirement> requirements) {
        public static final Around PLAIN = new Around(false, Optional.empty(), Optional.empty(), List.of());
    }

    /** @param until when it opens by itself */
    public record Closed(String sentence, Optional<Instant> until) {}

    /** @param live the version that is live there, if any */
    public record Requirement(String component, String range, Optional<String> live, boolean met) {}

    public GateFacts {
        authors = Set.copyOf(authors);
        members = Map.copyOf(members);
        passed = Set.copyOf(passed);
        rulings = List.copyOf(rulings);
    }
}
