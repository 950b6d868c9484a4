package dev.paseo.core.gate;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What a gate is judged on, at one moment.
 *
 * @param subject     the digest of the exact subject now
 * @param requester   who asked; empty for an automatic deployment
 * @param authors     the accounts that wrote or pushed a commit between what is live and what is proposed
 * @param members     the members of each group named by a criterion
 * @param passed      the environments in which the version's passage has ended
 */
public record GateFacts(
        String subject, String requester, Set<String> authors, Map<String, Set<String>> members, Set<String> passed,
        String branch, boolean trusted, Instant requestedAt, List<Ruling> rulings) {

    public GateFacts {
        authors = Set.copyOf(authors);
        members = Map.copyOf(members);
        passed = Set.copyOf(passed);
        rulings = List.copyOf(rulings);
    }
}
