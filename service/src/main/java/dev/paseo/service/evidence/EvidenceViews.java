package dev.paseo.service.evidence;

import dev.paseo.core.evidence.CoverageSummary;
import dev.paseo.core.evidence.FindingsSummary.Finding;
import dev.paseo.core.evidence.FindingsSummary;
import dev.paseo.core.evidence.Flakiness;
import dev.paseo.core.evidence.Parts;
import dev.paseo.core.evidence.TestSummary;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Evidence as people look at it: beside the run before it on its branch, and over the last runs. */
@Component
public class EvidenceViews {

    private static final int TREND_RUNS = 30;

    /** @param since the run of the branch that it is compared with */
    public record TestsView(String stage, String variant, int attempt, TestSummary tests, List<String> newlyFailing,
            List<String> flaky, Optional<Long> since) {}

    /** @param lines the share of lines that were covered, from 0 to 1; absent where the report counts none */
    public record CoverageView(String stage, String variant, int attempt, CoverageSummary coverage,
            Optional<Double> lines, Optional<Double> branches,
            Optional<Double> linesBefore, Optional<Long> since) {}

    public record FindingsView(String stage, String variant, int attempt, FindingsSummary findings,
            List<Finding> appeared, List<Finding> gone, long still,
            Optional<Long> since) {}

    /** How many parts a stage reported; the version that was made of it has them by name. */
    public record StagePartsView(String stage, String variant, int attempt, Parts.Summary parts) {}

    /** What one run reported, all stages together. */
    public record TrendPoint(long number, Optional<Long> tests, Optional<Long> failed, Optional<Long> skipped,
            Optional<Double> seconds,
            Optional<Double> lines, Optional<Long> findings) {}

    /** The evidence of a run, and the trend of its branch, the oldest first. */
    public record EvidenceView(List<TestsView> tests, List<CoverageView> coverage, List<FindingsView> findings,
            List<StagePartsView> parts, Optional<FindingsTotals> found, List<TrendPoint> trend) {}

    /** Of all stages; what several variants of one stage found counts once. */
    public record FindingsTotals(long total, long errors, long warnings, long notes) {}

    private final EvidenceMapper mapper;
    private final Evidence evidence;

    EvidenceViews(EvidenceMapper mapper, Evidence evidence) {
        this.mapper = mapper;
        this.evidence = evidence;
    }

    public EvidenceView of(long run) {
        List<EvidenceMapper.TrendRow> trend = mapper.trend(run, TREND_RUNS);
        Set<String> flaky = flaky(trend);
        List<TestsView> tests = new ArrayList<>();
        List<CoverageView> coverage = new ArrayList<>();
        List<FindingsView> findings = new ArrayList<>();
        List<StagePartsView> parts = new ArrayList<>();
        for (EvidenceMapper.BodyRow row : mapper.ofRun(run)) {
            Optional<EvidenceMapper.BodyRow> before = evidence.before(row);
            switch (row.kind()) {
                case Evidence.TESTS -> tests.add(tests(row, before, flaky));
                case Evidence.COVERAGE -> coverage.add(coverage(row, before));
                case Evidence.PARTS -> parts.add(new StagePartsView(row.stage(), row.variant(), row.attempt(),
                        evidence.summary(row.body(), Parts.Summary.class)));
                default -> findings.add(findings(row, before));
            }
        }
        return new EvidenceView(tests, coverage, findings, parts, totals(findings), points(trend));
    }

    private static Optional<FindingsTotals> totals(List<FindingsView> findings) {
        Map<String, FindingsView> newest = new LinkedHashMap<>();
        findings.forEach(each -> newest.merge(each.stage() + " " + each.variant(), each,
                (one, other) -> other.attempt() >= one.attempt() ? other : one));
        Map<String, List<FindingsSummary>> byStage = new LinkedHashMap<>();
        newest.values().forEach(
                each -> byStage.computeIfAbsent(each.stage(), stage -> new ArrayList<>()).add(each.findings()));
        FindingsSummary all = Evidence.together(byStage);
        return findings.isEmpty() ? Optional.empty()
                : Optional.of(new FindingsTotals(all.total(), all.errors(), all.warnings(), all.notes()));
    }

    private TestsView tests(EvidenceMapper.BodyRow row, Optional<EvidenceMapper.BodyRow> before, Set<String> flaky) {
        TestSummary now = evidence.summary(row.body(), TestSummary.class);
        Set<String> failed = before.map(run -> new HashSet<>(mapper.failed(run.run()))).orElseGet(HashSet::new);
        return new TestsView(row.stage(), row.variant(), row.attempt(), now,
                before.isPresent() ? now.newlyFailing(failed) : List.of(),
                flaky.stream().sorted().toList(), before.map(EvidenceMapper.BodyRow::number));
    }

    private CoverageView coverage(EvidenceMapper.BodyRow row, Optional<EvidenceMapper.BodyRow> before) {
        CoverageSummary now = evidence.summary(row.body(), CoverageSummary.class);
        return new CoverageView(row.stage(), row.variant(), row.attempt(), now, now.lines().share(),
                now.branches().flatMap(CoverageSummary.Counted::share),
                before.flatMap(run -> evidence.summary(run.body(), CoverageSummary.class).lines().share()),
                before.map(EvidenceMapper.BodyRow::number));
    }

    private FindingsView findings(EvidenceMapper.BodyRow row, Optional<EvidenceMapper.BodyRow> before) {
        FindingsSummary now = evidence.summary(row.body(), FindingsSummary.class);
        Optional<FindingsSummary.Change> change = before
                .map(run -> now.since(evidence.summary(run.body(), FindingsSummary.class)));
        return new FindingsView(row.stage(), row.variant(), row.attempt(), now,
                change.map(FindingsSummary.Change::appeared).orElse(List.of()),
                change.map(FindingsSummary.Change::gone).orElse(List.of()),
                change.map(FindingsSummary.Change::still).orElse(0L),
                before.map(EvidenceMapper.BodyRow::number));
    }

    private Set<String> flaky(List<EvidenceMapper.TrendRow> trend) {
        Map<String, List<Flakiness.Report>> byStage = new LinkedHashMap<>();
        trend.reversed().stream().filter(row -> row.kind().equals(Evidence.TESTS))
                .forEach(row -> byStage.computeIfAbsent(row.stage(), stage -> new ArrayList<>())
                        .add(new Flakiness.Report(row.commitId(),
                                new HashSet<>(evidence.summary(row.body(), TestSummary.class).failures().stream()
                                        .map(TestSummary.Failure::name).toList()))));
        Set<String> flaky = new HashSet<>();
        byStage.values().forEach(reports -> flaky.addAll(Flakiness.flaky(reports)));
        return flaky;
    }

    private List<TrendPoint> points(List<EvidenceMapper.TrendRow> trend) {
        Map<Long, List<EvidenceMapper.TrendRow>> byRun = new LinkedHashMap<>();
        trend.reversed().forEach(row -> byRun.computeIfAbsent(row.number(), number -> new ArrayList<>()).add(row));
        return byRun.entrySet().stream().map(entry -> point(entry.getKey(), entry.getValue())).toList();
    }

    private TrendPoint point(long number, List<EvidenceMapper.TrendRow> rows) {
        List<TestSummary> tests = of(rows, Evidence.TESTS, TestSummary.class);
        List<CoverageSummary> coverage = of(rows, Evidence.COVERAGE, CoverageSummary.class);
        Map<String, List<FindingsSummary>> findings = new LinkedHashMap<>();
        rows.stream().filter(row -> row.kind().equals(Evidence.FINDINGS))
                .forEach(row -> findings.computeIfAbsent(row.stage(), stage -> new ArrayList<>())
                        .add(evidence.summary(row.body(), FindingsSummary.class)));
        return new TrendPoint(number, sum(tests, TestSummary::total), sum(tests, TestSummary::failed),
                sum(tests, TestSummary::skipped),
                tests.isEmpty() ? Optional.empty()
                        : Optional.of(tests.stream().mapToDouble(TestSummary::seconds).sum()),
                coverage.stream().map(CoverageSummary::lines).reduce(CoverageSummary.Counted::plus)
                        .flatMap(CoverageSummary.Counted::share),
                findings.isEmpty() ? Optional.empty() : Optional.of(Evidence.together(findings).total()));
    }

    private <T> List<T> of(List<EvidenceMapper.TrendRow> rows, String kind, Class<T> type) {
        return rows.stream().filter(row -> row.kind().equals(kind)).map(row -> evidence.summary(row.body(), type))
                .toList();
    }

    private static <T> Optional<Long> sum(List<T> summaries, Function<T, Long> count) {
        return summaries.isEmpty() ? Optional.empty() : Optional.of(summaries.stream().mapToLong(count::apply).sum());
    }

    /**
     * What is known about a version that arrived.
     *
     * @param from the digest of the report, or the run that reported it
     */
    public record KnownView(String kind, String from, tools.jackson.databind.JsonNode summary, java.time.Instant at) {}

    public List<KnownView> ofVersion(long version) {
        return mapper.ofVersion(version).stream().map(row -> new KnownView(row.kind(), row.origin(),
                evidence.summary(row.body(), tools.jackson.databind.JsonNode.class), row.at())).toList();
    }
}
