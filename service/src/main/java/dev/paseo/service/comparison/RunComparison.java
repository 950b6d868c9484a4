package dev.paseo.service.comparison;

import dev.paseo.core.run.StageStatus;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.Run;
import dev.paseo.service.run.RunViews;
import dev.paseo.service.run.RunViews.RunView;
import dev.paseo.service.run.RunViews.StageView;
import dev.paseo.service.run.Runs;
import dev.paseo.service.source.Mirror;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Holds one run against another of the same component. */
@Component
class RunComparison {

    private static final int MOST_COMMITS = 100;

    record ComparedCommit(String id, String summary, String author) {}

    /** A stage on both sides; empty where a run has no such stage. Seconds are those of its newest attempt. */
    record ComparedStage(String stage, Optional<StageStatus> before, Optional<StageStatus> after,
            Optional<Double> secondsBefore,
            Optional<Double> secondsAfter) {}

    /** Something named that is not the same on both sides. */
    record ComparedValue(String name, Optional<String> before, Optional<String> after) {}

    /**
     * What changed from one run to the other.
     *
     * @param commits those that the later one has and the earlier one has not
     * @param takes   versions of other components
     * @param pieces  that their pipeline files were put together from
     * @param tests   which tests began to fail, and which no longer do
     */
    record RunComparisonView(RunViews.RunSummary before, RunViews.RunSummary after, List<ComparedCommit> commits,
            List<ComparedStage> stages, List<ComparedValue> artifacts,
            List<ComparedValue> answers, List<ComparedValue> takes, List<ComparedValue> pieces,
            List<ComparedValue> tests,
            List<ComparedValue> figures) {}

    private final Runs runs;
    private final RunViews views;
    private final EvidenceViews evidence;

    RunComparison(Runs runs, RunViews views, EvidenceViews evidence) {
        this.runs = runs;
        this.views = views;
        this.evidence = evidence;
    }

    RunComparisonView compare(Run before, Run after) {
        if (before.componentId() != after.componentId()) {
            throw Refusal.conflict("Only runs of the same component can be compared");
        }
        RunView old = views.whole(before);
        RunView now = views.whole(after);
        EvidenceViews.EvidenceView oldEvidence = evidence.of(before.id());
        EvidenceViews.EvidenceView nowEvidence = evidence.of(after.id());
        List<ComparedCommit> commits = before.commitId().equals(after.commitId()) ? List.of()
                : runs.mirror(after).between(Optional.of(before.commitId()), after.commitId(), MOST_COMMITS).stream()
                        .map(RunComparison::view).toList();
        return new RunComparisonView(old.run(), now.run(), commits, stages(old, now),
                changes(byName(old.outputs(), RunViews.OutputView::name, RunViews.OutputView::digest),
                        byName(now.outputs(), RunViews.OutputView::name, RunViews.OutputView::digest)),
                changes(old.answers(), now.answers()), changes(takes(old), takes(now)),
                changes(Comparisons.pieces(old.pieces()), Comparisons.pieces(now.pieces())),
                changes(failing(oldEvidence), failing(nowEvidence)),
                changes(figures(oldEvidence), figures(nowEvidence)));
    }

    private static ComparedCommit view(Mirror.Commit commit) {
        return new ComparedCommit(commit.id(), commit.summary(), commit.author());
    }

    private static Map<String, StageView> newest(RunView run) {
        Map<String, StageView> stages = new LinkedHashMap<>();
        run.stages().forEach(stage -> stages.put((stage.name() + " " + stage.variant()).strip(), stage));
        return stages;
    }

    private static List<ComparedStage> stages(RunView old, RunView now) {
        Map<String, StageView> before = newest(old);
        Map<String, StageView> after = newest(now);
        Set<String> names = new LinkedHashSet<>(after.keySet());
        names.addAll(before.keySet());
        return names.stream()
                .map(name -> new ComparedStage(name, Optional.ofNullable(before.get(name)).map(StageView::status),
                        Optional.ofNullable(after.get(name)).map(StageView::status),
                        Optional.ofNullable(before.get(name)).flatMap(RunComparison::seconds),
                        Optional.ofNullable(after.get(name)).flatMap(RunComparison::seconds)))
                .toList();
    }

    private static Optional<Double> seconds(StageView stage) {
        return stage.startedAt()
                .flatMap(began -> stage.endedAt().map(ended -> Duration.between(began, ended).toMillis() / 1000.0));
    }

    private static <T> Map<String, String> byName(List<T> all, java.util.function.Function<T, String> name,
            java.util.function.Function<T, String> value) {
        Map<String, String> named = new LinkedHashMap<>();
        all.forEach(each -> named.put(name.apply(each), value.apply(each)));
        return named;
    }

    private static Map<String, String> takes(RunView run) {
        Map<String, String> takes = new LinkedHashMap<>();
        run.stages().forEach(stage -> stage.takes()
                .forEach(take -> takes.put(take.component() + " " + take.artifact(), take.version())));
        return takes;
    }

    private static Map<String, String> failing(EvidenceViews.EvidenceView evidence) {
        Map<String, String> failing = new LinkedHashMap<>();
        evidence.tests()
                .forEach(tests -> tests.tests().failures().forEach(failure -> failing.put(failure.name(), "fails")));
        return failing;
    }

    private static Map<String, String> figures(EvidenceViews.EvidenceView evidence) {
        Map<String, String> figures = new LinkedHashMap<>();
        if (!evidence.tests().isEmpty()) {
            figures.put("tests",
                    Long.toString(evidence.tests().stream().mapToLong(tests -> tests.tests().total()).sum()));
        }
        evidence.coverage().forEach(coverage -> figures.put("lines covered",
                coverage.lines().map(share -> Math.round(share * 1000) / 10.0 + " %").orElse("not reported")));
        evidence.found().ifPresent(found -> figures.put("findings", Long.toString(found.total())));
        return figures;
    }

    private static List<ComparedValue> changes(Map<String, String> before, Map<String, String> after) {
        Set<String> names = new LinkedHashSet<>(after.keySet());
        names.addAll(before.keySet());
        List<ComparedValue> changes = new ArrayList<>();
        for (String name : names) {
            if (!Objects.equals(before.get(name), after.get(name))) {
                changes.add(new ComparedValue(name, Optional.ofNullable(before.get(name)),
                        Optional.ofNullable(after.get(name))));
            }
        }
        return changes;
    }
}
