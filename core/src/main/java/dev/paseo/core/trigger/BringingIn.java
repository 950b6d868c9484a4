package dev.paseo.core.trigger;

import dev.paseo.core.trigger.Matching.Considered;
import dev.paseo.core.trigger.Matching.Finding;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a repository that is to be a component holds, what will follow from a push to it, and what is likely to be meant
 * otherwise.
 */
public final class BringingIn {

    private static final int NAMED = 5;

    private BringingIn() {}

    /**
     * What was found.
     *
     * @param branches all that it has
     * @param path     of the pipeline file
     * @param file     whether it is there, on the main branch
     * @param triggers of the file; empty where it has problems
     * @param walks    the environments that its versions walk to; a component that is new has no place in them
     */
    public record Repository(List<String> branches, String mainBranch, String path, boolean file,
            Optional<List<Trigger>> triggers, List<String> walks) {

        boolean empty() {
            return branches.isEmpty();
        }

        boolean hasMain() {
            return branches.contains(mainBranch);
        }
    }

    /**
     * What is said of it.
     *
     * @param starts whether its newest commit could start a run now
     */
    public record Said(List<String> warnings, String next, boolean starts) {}

    public static Said of(String component, Repository repository, BranchRules rules) {
        List<String> warnings = new ArrayList<>();
        if (!repository.empty() && !repository.hasMain()) {
            warnings.add("it has no branch " + repository.mainBranch() + "; it has " + few(repository.branches()));
        }
        if (rules.trusted().isEmpty()) {
            warnings.add("no branch is trusted: none of its runs may have secrets, and none of its versions may walk");
        }
        if (!repository.empty()) {
            List<BranchPattern> unmatched = Stream.concat(rules.trusted().stream(), rules.allowed().stream())
                    .filter(pattern -> repository.branches().stream().noneMatch(pattern::matches)).toList();
            unmatched.stream().filter(pattern -> !pattern.wild()).forEach(pattern -> warnings
                    .add("there is no branch " + pattern + "; it has " + few(repository.branches())));
            if (rules.trusted().stream().allMatch(pattern -> pattern.wild() && unmatched.contains(pattern))
                    && !rules.trusted().isEmpty()) {
                warnings.add("no branch matches " + few(rules.trusted().stream().map(BranchPattern::toString).toList())
                        + ", so none is trusted; it has " + few(repository.branches()));
            }
        }
        if (repository.hasMain() && !repository.file()) {
            warnings.add("there is no " + repository.path() + " on " + repository.mainBranch()
                    + ": nothing starts until there is");
        } else if (repository.hasMain() && repository.triggers().isEmpty()) {
            warnings.add(repository.path() + " on " + repository.mainBranch()
                    + " has problems: nothing starts until they are mended");
        } else if (repository.hasMain() && repository.triggers().get().isEmpty()) {
            warnings.add(repository.path() + " names no triggers: nothing starts by itself");
        }
        boolean starts = repository.hasMain() && repository.triggers().isPresent()
                && rules.refusal(repository.mainBranch()).isEmpty();
        return new Said(List.copyOf(warnings), next(component, repository, rules), starts);
    }

    private static String next(String component, Repository repository, BranchRules rules) {
        if (repository.empty()) {
            return "The repository is empty. What the first push starts is for its " + repository.path() + " to say";
        }
        if (repository.triggers().isEmpty()) {
            return "A push starts nothing yet";
        }
        List<String> starting = repository.branches().stream()
                .filter(branch -> found(component, branch, repository, rules)
                        .anyMatch(finding -> finding instanceof Finding.Starts))
                .toList();
        if (!starting.isEmpty()) {
            return "The next push to " + few(starting) + " starts a run" + (repository.walks().isEmpty() ? ""
                    : ". To be deployed it needs a place in " + few(repository.walks()) + ": paseo environment edit");
        }
        return "A push to any of its branches starts nothing"
                + found(component, repository.mainBranch(), repository, rules)
                        .flatMap(finding -> finding instanceof Finding.StartsNothing(String why) ? Stream.of(why)
                                : Stream.empty())
                        .findFirst()
                        .map(why -> "; of " + repository.mainBranch() + ": " + why).orElse("");
    }

    private static Stream<Finding> found(String component, String branch, Repository repository, BranchRules rules) {
        List<Matching.InForce> triggers = repository.triggers().orElse(List.of()).stream()
                .map(trigger -> new Matching.InForce(component, 0, trigger, rules, repository.mainBranch(),
                        Optional.empty()))
                .toList();
        return Matching.match(new Event.Pushed(component, branch, "", Optional.empty()), triggers).stream()
                .map(Considered::finding);
    }

    private static String few(List<String> names) {
        return names.stream().limit(NAMED).collect(Collectors.joining(", "))
                + (names.size() > NAMED ? " and " + (names.size() - NAMED) + " more" : "");
    }
}
