package dev.paseo.core.trigger;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What the service says about a component's branches, whatever its file says.
 *
 * @param allowed further branches on which runs may start
 * @param trusted branches whose versions may walk and whose runs may have secrets
 */
public record BranchRules(List<BranchPattern> allowed, List<BranchPattern> trusted) {

    public BranchRules {
        allowed = List.copyOf(allowed);
        trusted = List.copyOf(trusted);
    }

    public static BranchRules of(List<String> allowed, List<String> trusted) {
        return new BranchRules(allowed.stream().map(BranchPattern::new).toList(),
                trusted.stream().map(BranchPattern::new).toList());
    }

    public boolean trusts(String branch) {
        return trusted.stream().anyMatch(pattern -> pattern.matches(branch));
    }

    /**
     * The branch that a tagged commit counts as: the main one where it is on it, else the first that is trusted, else
     * the first of all; none where it is on no branch.
     */
    public Optional<String> ofTag(String main, List<String> branches) {
        return branches.stream().filter(main::equals).findFirst()
                .or(() -> branches.stream().filter(this::trusts).findFirst()).or(() -> branches.stream().findFirst());
    }

    /** Why nothing starts on a branch, if so. */
    Optional<String> refusal(String branch) {
        if (Stream.concat(trusted.stream(), allowed.stream()).anyMatch(pattern -> pattern.matches(branch))) {
            return Optional.empty();
        }
        String names = Stream.concat(trusted.stream(), allowed.stream()).map(BranchPattern::toString)
                .collect(Collectors.joining(", "));
        return Optional
                .of("the service allows runs on " + (names.isEmpty() ? "no branch" : names) + "; this is " + branch);
    }
}
