package dev.paseo.core.evidence;

import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What findings reports (SARIF) say.
 *
 * @param results as many as are kept
 */
public record FindingsSummary(long total, long errors, long warnings, long notes, List<Finding> results) {

    /**
     * One finding.
     *
     * @param level       {@code error}, {@code warning}, {@code note} or {@code none}
     * @param fingerprint the same for the same finding in another run, also when lines moved
     */
    public record Finding(String rule, String level, String message, String file, Optional<Integer> line,
            String fingerprint) {}

    /** What became of the findings since the run before. */
    public record Change(List<Finding> appeared, List<Finding> gone, long still) {}

    public static final FindingsSummary NONE = new FindingsSummary(0, 0, 0, 0, List.of());

    public FindingsSummary {
        results = List.copyOf(results);
    }

    /**
     * What the variants of one stage found together. They look at the same files: what several of them found counts
     * once.
     * Where not all results are kept, the variant that found most stands for them.
     */
    public static FindingsSummary ofVariants(List<FindingsSummary> variants) {
        FindingsSummary most = variants.stream().max(Comparator.comparingLong(FindingsSummary::total)).orElse(NONE);
        if (variants.size() < 2 || variants.stream().anyMatch(each -> each.results().size() < each.total())) {
            return most;
        }
        Map<String, Finding> once = new LinkedHashMap<>();
        variants.forEach(each -> each.results().forEach(finding -> once.putIfAbsent(finding.fingerprint(), finding)));
        return once.size() < most.total() ? most : new FindingsSummary(once.size(), count(once, "error"),
                count(once, "warning"), count(once, "note"), List.copyOf(once.values()));
    }

    private static long count(Map<String, Finding> findings, String level) {
        return findings.values().stream().filter(finding -> finding.level().equals(level)).count();
    }

    public FindingsSummary plus(FindingsSummary more) {
        return new FindingsSummary(total + more.total, errors + more.errors, warnings + more.warnings,
                notes + more.notes, Stream.concat(results.stream(), more.results.stream()).toList());
    }

    public Change since(FindingsSummary before) {
        Set<String> then = before.results().stream().map(Finding::fingerprint)
                .collect(Collectors.toCollection(HashSet::new));
        Set<String> now = results.stream().map(Finding::fingerprint).collect(Collectors.toCollection(HashSet::new));
        List<Finding> appeared = results.stream().filter(finding -> !then.contains(finding.fingerprint())).toList();
        List<Finding> gone = before.results().stream().filter(finding -> !now.contains(finding.fingerprint())).toList();
        return new Change(appeared, gone, results.size() - appeared.size());
    }
}
