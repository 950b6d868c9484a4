package dev.paseo.core.evidence;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Finds flaky tests in the latest reports of a branch: those that both failed and passed on one commit, or whose result
 * turned over at least twice.
 */
public final class Flakiness {

    private static final int TURNS = 2;

    private Flakiness() {}

    /** One report: the commit it is about, and which tests failed in it. */
    public record Report(String commit, Set<String> failed) {}

    /** @param reports in the order in which they were made */
    public static Set<String> flaky(List<Report> reports) {
        Set<String> suspects = new LinkedHashSet<>();
        reports.forEach(report -> suspects.addAll(report.failed()));
        Set<String> flaky = new LinkedHashSet<>();
        for (String test : suspects) {
            if (turns(test, reports) >= TURNS || bothOnOneCommit(test, reports)) {
                flaky.add(test);
            }
        }
        return flaky;
    }

    private static int turns(String test, List<Report> reports) {
        int turns = 0;
        for (int at = 1; at < reports.size(); at++) {
            if (reports.get(at).failed().contains(test) != reports.get(at - 1).failed().contains(test)) {
                turns++;
            }
        }
        return turns;
    }

    private static boolean bothOnOneCommit(String test, List<Report> reports) {
        Map<String, List<Boolean>> byCommit = new HashMap<>();
        reports.forEach(report -> byCommit.computeIfAbsent(report.commit(), commit -> new ArrayList<>())
                .add(report.failed().contains(test)));
        return byCommit.values().stream().anyMatch(results -> results.contains(true) && results.contains(false));
    }
}
