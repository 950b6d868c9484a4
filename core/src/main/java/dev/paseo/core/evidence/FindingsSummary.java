package dev.paseo.core.evidence;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

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
    public record Finding(String rule, String level, String message, String file, Optional<Integer> line, String fingerprint) {}

    /** What became of the findings since the run before. */
    public record Change(List<Finding> appeared, List<Finding> gone, long still) {}

    public FindingsSummary {
        results = List.copyOf(results);
    }

    public Change since(FindingsSummary before) {
        Set<String> then = before.results().stream().map(Finding::fingerprint).collect(Collectors.toCollection(HashSet::new));
        Set<String> now = results.stream().map(Finding::fingerprint).collect(Collectors.toCollection(HashSet::new));
        List<Finding> appeared = results.stream().filter(finding -> !then.contains(finding.fingerprint())).toList();
        List<Finding> gone = before.results().stream().filter(finding -> !now.contains(finding.fingerprint())).toList();
        return new Change(appeared, gone, results.size() - appeared.size());
    }
}
