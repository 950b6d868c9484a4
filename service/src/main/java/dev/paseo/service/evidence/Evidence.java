package dev.paseo.service.evidence;

import dev.paseo.service.change.Changes;
import dev.paseo.core.evidence.CoverageSummary;
import dev.paseo.core.evidence.FindingsSummary;
import dev.paseo.core.evidence.Parts;
import dev.paseo.core.evidence.SignOff;
import dev.paseo.core.evidence.TestSummary;
import dev.paseo.language.condition.Condition;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.database.Json;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Reads reports as they arrive and keeps what they say, with where it came from; evidence is only ever added. */
@Component
public class Evidence {

    public static final String TESTS = "tests";
    public static final String COVERAGE = "coverage";
    public static final String FINDINGS = "findings";
    public static final String PARTS = "parts";
    public static final String SIGN_OFF = "sign-off";
    private static final String ADDED = "added";

    /** What is kept as it is, and not read. */
    private static final Set<String> FILES = Set.of("signature", "statement");
    private static final int PARTS_AT_ONCE = 500;

    /** The attempt of a stage that a report is of. */
    public record Origin(long run, long stage, String name, String variant) {}

    private final EvidenceMapper mapper;
    private final KeptBytes bytes;
    private final Json json;
    private final JsonMapper plain;
    private final Changes changes;
    private final Reports reports;

    Evidence(EvidenceMapper mapper, KeptBytes bytes, Json json, JsonMapper plain, Changes changes, Reports reports) {
        this.reports = reports;
        this.mapper = mapper;
        this.bytes = bytes;
        this.json = json;
        this.plain = plain;
        this.changes = changes;
    }

    /** Reads an archive of report files of one kind; refused, with file and place, where one cannot be read. */
    public void take(Origin origin, String kind, String digest) {
        switch (kind) {
            case TESTS -> tests(origin, digest);
            default -> keep(origin, kind, digest, read(kind, digest));
        }
    }

    private void tests(Origin origin, String digest) {
        Set<String> before = new HashSet<>();
        mapper.before(origin.run(), TESTS, origin.name(), origin.variant())
                .ifPresent(run -> before.addAll(mapper.failed(run)));
        TestReport report = new TestReport(before);
        reports.each(TESTS, digest, file -> Xml.read(file, report));
        TestSummary summary = report.summary();
        changes.run(() -> {
            keep(origin, TESTS, digest, summary);
            summary.failures().forEach(failure -> mapper.addFailure(origin.run(), origin.stage(), failure.name()));
        });
    }

    /** What report files that came with a version from elsewhere say. */
    public Object read(String kind, String digest) {
        return reports.read(kind, digest);
    }

    /** Keeps what was read as evidence of a version, in the transaction under way. */
    public void keepOfVersion(long version, String kind, String digest, Object summary) {
        mapper.addOfVersion(version, kind, "sha256:" + digest, stored(summary), changes.now());
        addParts(summary);
        bytes.refer(digest, "version", version);
    }

    /** A test of what is live. */
    public record Tested(long deployment, long version, long environmentId, String environment, String test) {}

    /** Reads reports of a test of what is live, and keeps them as evidence of that version in that environment. */
    public void takeOfDeployment(Tested tested, String kind, String digest) {
        Object summary = read(kind, digest);
        changes.run(() -> {
            mapper.addOfDeployment(tested, kind,
                    "deployment " + tested.deployment() + " in " + tested.environment() + ", " + tested.test(),
                    stored(summary), changes.now());
            addParts(summary);
            bytes.refer(digest, "version", tested.version());
        });
    }

    private void keep(Origin origin, String kind, String digest, Object summary) {
        changes.run(() -> {
            mapper.add(origin.run(), origin.stage(), kind, "sha256:" + digest, stored(summary), changes.now());
            addParts(summary);
            bytes.refer(digest, "run", origin.run());
        });
    }

    /** Parts have rows of their own; of them only how many there are stands in the summary. */
    private String stored(Object summary) {
        Object kept = summary instanceof Parts parts ? parts.summary() : summary;
        return json.write(new Stored(1, plain.valueToTree(kept)));
    }

    /** Those of the evidence that was added last, in the transaction under way. */
    private void addParts(Object summary) {
        if (summary instanceof Parts parts && !parts.list().isEmpty()) {
            long evidence = mapper.addedLast();
            for (int from = 0; from < parts.list().size(); from += PARTS_AT_ONCE) {
                mapper.addParts(evidence, parts.list().subList(from, Math.min(from + PARTS_AT_ONCE,
                        parts.list().size())));
            }
        }
    }

    /** What a version is made of, as the newest report of each stage of its run says, and what came with it. */
    public Parts parts(long version, Optional<Long> run) {
        return new Parts(mapper.partsOfVersion(version, run.orElse(null)));
    }

    /** What one file says that is added to a version. */
    public Object readFile(String kind, String digest) {
        return reports.readFile(kind, digest);
    }

    /**
     * What is added to a sealed version.
     *
     * @param environment its id; empty: wherever it is
     * @param file        SHA-256
     */
    public record Added(long version, Optional<Long> environment, String kind, String file, Object summary, long by) {}

    /** In the transaction under way; whether it was not there before. */
    public boolean add(Added added) {
        @Nullable
        Long environment = added.environment().orElse(null);
        if (mapper.has(added.version(), environment, added.kind(), added.file())) {
            return false;
        }
        mapper.addAdded(added.version(), environment, added.kind(), stored(added.summary()), changes.now(),
                added.by(), added.file());
        addParts(added.summary());
        if (!added.kind().equals(SIGN_OFF)) {
            bytes.refer(added.file(), "version", added.version());
        }
        return true;
    }

    /**
     * Evidence that was added after a version was sealed.
     *
     * @param kind        sign-off, signature, statement, or a kind of report
     * @param environment about the version as it is there; absent: wherever it is
     * @param by          who added it
     * @param sha256      of the file; of a sign-off of name and words
     * @param name        of a sign-off: whose word it is
     * @param words       of a sign-off
     */
    public record AddedEvidenceView(String kind, Optional<String> environment, String by, Instant at, String sha256,
            Optional<String> name, Optional<String> words) {}

    public List<AddedEvidenceView> added(long version) {
        return mapper.added(version).stream().map(row -> {
            Optional<SignOff> said = Optional.of(row).filter(each -> each.kind().equals(SIGN_OFF))
                    .map(each -> summary(each.body(), SignOff.class));
            return new AddedEvidenceView(row.kind(), Optional.ofNullable(row.environment()), row.by(), row.at(),
                    row.file(), said.map(SignOff::name), said.map(SignOff::words));
        }).toList();
    }

    /** How a summary is stored. */
    record Stored(int format, tools.jackson.databind.JsonNode summary) {}

    /** The facts that conditions over reports are about, as far as this attempt of a stage has reported any. */
    public Map<String, Object> facts(long stage) {
        List<EvidenceMapper.KindRow> rows = mapper.ofStage(stage);
        Map<String, Object> facts = sum(rows);
        addParts(facts, rows.stream().map(EvidenceMapper.KindRow::kind).toList(),
                () -> new Parts(mapper.partsOfStage(stage)));
        return facts;
    }

    /** The parts themselves are read only where there is a report of them. */
    private static void addParts(Map<String, Object> facts, List<String> kinds, Supplier<Parts> parts) {
        if (kinds.contains(PARTS)) {
            Parts all = parts.get();
            facts.put(PARTS, Map.of("total", all.summary().total(), "unlicensed", all.summary().unlicensed(),
                    "packages", all.packages()));
        }
    }

    /** How many tests failed, as this attempt of a stage has reported. */
    public long failedTests(long stage) {
        return of(mapper.ofStage(stage), TESTS, TestSummary.class).stream().mapToLong(TestSummary::failed).sum();
    }

    /** The same of a test of what a deployment made live. */
    public long failedTests(long deployment, String test) {
        return of(mapper.ofTest(deployment, test), TESTS, TestSummary.class).stream().mapToLong(TestSummary::failed)
                .sum();
    }

    /**
     * The same of a version, summed over the newest report of each stage; and of each environment as {@code at.NAME}.
     */
    public Map<String, Object> factsOfVersion(long version, Optional<Long> run) {
        List<EvidenceMapper.FactRow> rows = mapper.ofVersionAndRun(version, run.orElse(null));
        Map<String, Object> facts = sum(rows.stream().filter(row -> row.environment() == null)
                .map(row -> new EvidenceMapper.KindRow(row.stage(), row.kind(), row.body())).toList());
        addParts(facts, rows.stream().filter(row -> row.environment() == null).map(EvidenceMapper.FactRow::kind)
                .toList(), () -> parts(version, run));
        Map<String, List<EvidenceMapper.KindRow>> at = new LinkedHashMap<>();
        rows.forEach(
                row -> Optional.ofNullable(row.environment())
                        .ifPresent(environment -> at
                                .computeIfAbsent(Condition.identifier(environment), name -> new ArrayList<>())
                                .add(new EvidenceMapper.KindRow(row.stage(), row.kind(), row.body()))));
        Map<String, Object> there = new LinkedHashMap<>();
        at.forEach((environment, reports) -> there.put(environment, sum(reports)));
        facts.put("at", there);
        return facts;
    }

    private Map<String, Object> sum(List<EvidenceMapper.KindRow> rows) {
        Map<String, Object> facts = new LinkedHashMap<>();
        List<TestSummary> tests = of(rows, TESTS, TestSummary.class);
        if (!tests.isEmpty()) {
            facts.put(TESTS,
                    Map.of("total", tests.stream().mapToLong(TestSummary::total).sum(), "passed",
                            tests.stream().mapToLong(TestSummary::passed).sum(),
                            "failed", tests.stream().mapToLong(TestSummary::failed).sum(), "skipped",
                            tests.stream().mapToLong(TestSummary::skipped).sum(),
                            "seconds", tests.stream().mapToDouble(TestSummary::seconds).sum()));
        }
        List<CoverageSummary> coverage = of(rows, COVERAGE, CoverageSummary.class);
        coverage.stream().map(CoverageSummary::lines).reduce(CoverageSummary.Counted::plus).ifPresent(lines -> {
            Map<String, Object> shares = new LinkedHashMap<>();
            lines.share().ifPresent(share -> shares.put("lines", share));
            coverage.stream().flatMap(each -> each.branches().stream()).reduce(CoverageSummary.Counted::plus)
                    .flatMap(CoverageSummary.Counted::share).ifPresent(share -> shares.put("branches", share));
            facts.put(COVERAGE, shares);
        });
        Map<String, List<FindingsSummary>> findings = new LinkedHashMap<>();
        rows.stream().filter(row -> row.kind().equals(FINDINGS))
                .forEach(row -> findings.computeIfAbsent(row.stage(), stage -> new ArrayList<>())
                        .add(summary(row.body(), FindingsSummary.class)));
        if (!findings.isEmpty()) {
            FindingsSummary all = together(findings);
            facts.put(FINDINGS, Map.of("total", all.total(), "errors", all.errors(), "warnings", all.warnings(),
                    "notes", all.notes()));
        }
        addAdded(facts, rows);
        return facts;
    }

    private void addAdded(Map<String, Object> facts, List<EvidenceMapper.KindRow> rows) {
        List<String> names = of(rows, SIGN_OFF, SignOff.class).stream().map(SignOff::name).distinct().toList();
        List<String> files = rows.stream().map(EvidenceMapper.KindRow::kind)
                .filter(kind -> kind.equals(SIGN_OFF) || FILES.contains(kind)).distinct().toList();
        if (!files.isEmpty()) {
            facts.put(ADDED, Map.of("names", names, "kinds", files));
        }
    }

    /** Of all stages, each with its variants; what no stage reported adds up. */
    static FindingsSummary together(Map<String, List<FindingsSummary>> byStage) {
        return byStage.entrySet().stream()
                .map(stage -> stage.getKey().isEmpty()
                        ? stage.getValue().stream().reduce(FindingsSummary.NONE, FindingsSummary::plus)
                        : FindingsSummary.ofVariants(stage.getValue()))
                .reduce(FindingsSummary.NONE, FindingsSummary::plus);
    }

    private <T> List<T> of(List<EvidenceMapper.KindRow> rows, String kind, Class<T> type) {
        return rows.stream().filter(row -> row.kind().equals(kind)).map(row -> summary(row.body(), type)).toList();
    }

    <T> T summary(String body, Class<T> type) {
        return plain.treeToValue(json.read(body, Stored.class).summary(), type);
    }

    Optional<EvidenceMapper.BodyRow> before(EvidenceMapper.BodyRow row) {
        return mapper.before(row.run(), row.kind(), row.stage(), row.variant())
                .flatMap(run -> mapper.ofRun(run).stream()
                        .filter(each -> each.kind().equals(row.kind()) && each.stage().equals(row.stage())
                                && each.variant().equals(row.variant()))
                        .reduce((older, newer) -> newer));
    }
}
