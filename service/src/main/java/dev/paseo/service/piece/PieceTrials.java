package dev.paseo.service.piece;

import dev.paseo.core.version.VersionPattern;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFile.Take.Which;
import dev.paseo.language.piece.Difference;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.language.piece.TrialOutcome;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.pipeline.Releases;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Reads the file of everybody who uses a component's pieces as it would be with a new version of them. */
@Component
class PieceTrials {

    /**
     * What came of trying one component's file.
     *
     * @param wanted   the versions that it asks for
     * @param problems that it would have and has not now
     * @param changes  of the file with every piece in its place: the lines of a unified diff
     */
    record TriedView(String component, List<String> wanted, TrialOutcome outcome, List<Problem> problems,
            List<String> changes) {}

    /**
     * What came of trying a new version.
     *
     * @param version  the number that it would have
     * @param problems of the file that has the pieces; where it has any, nothing else is tried
     */
    record TrialView(String version, List<Problem> problems, List<TriedView> users) {}

    private final PieceMapper mapper;
    private final Components components;
    private final PipelineChecks checks;
    private final PipelineFiles files;
    private final Releases releases;

    PieceTrials(PieceMapper mapper, Components components, PipelineChecks checks, PipelineFiles files,
            Releases releases) {
        this.mapper = mapper;
        this.components = components;
        this.checks = checks;
        this.files = files;
        this.releases = releases;
    }

    TrialView attempt(RegisteredComponent component, String text, Predicate<String> seen) {
        PipelineChecks.Checked checked = checks.check(component, text);
        String version = checked.file().map(file -> number(component, file)).orElse("");
        if (!checked.problems().isEmpty()) {
            return new TrialView(version, checked.problems(), List.of());
        }
        Map<String, List<PieceMapper.UseRow>> users = new LinkedHashMap<>();
        mapper.uses(component.id()).stream().filter(row -> seen.test(row.component()))
                .forEach(row -> users.computeIfAbsent(row.component(), any -> new ArrayList<>()).add(row));
        PieceSource.Release proposed = new PieceSource.Release(component.name(), version, text);
        return new TrialView(version, List.of(),
                users.values().stream().map(rows -> one(component, proposed, rows)).toList());
    }

    /** The number that a run of the main branch would give. */
    private String number(RegisteredComponent component, PipelineFile file) {
        String scope = new VersionPattern(file.versions()).scope(Map.of("commit", "0000000", "branch",
                component.mainBranch(), "tag", "", "date", ""));
        return scope.contains("{serial}")
                ? VersionPattern.number(scope, mapper.counted(component.id(), scope).orElse(0L) + 1) : scope;
    }

    private TriedView one(RegisteredComponent component, PieceSource.Release proposed, List<PieceMapper.UseRow> rows) {
        RegisteredComponent user = components.byId(rows.getFirst().componentId());
        String written = files.written(rows.getFirst().file());
        List<String> wanted = rows.stream().map(PieceMapper.UseRow::wanted).distinct().toList();
        PieceSource now = releases.now(user.id(), user.name());
        boolean[] taken = {false};
        PipelineText then = PipelineText.read(written, (of, which) -> {
            boolean takes = components.nameNow(of).equals(component.name()) && takes(which, proposed.version());
            taken[0] |= takes;
            return takes ? new PieceSource.Found.Is(proposed) : now.find(of, which);
        });
        if (!taken[0]) {
            return new TriedView(user.name(), wanted, TrialOutcome.NOT_TAKEN, List.of(), List.of());
        }
        PipelineText before = PipelineText.read(written, now);
        List<Problem> known = checks.check(user, before).problems();
        List<Problem> problems = checks.check(user, then).problems().stream()
                .filter(problem -> !known.contains(problem)).toList();
        List<String> changes = Difference.of(comparable(before), comparable(then));
        return new TriedView(user.name(), wanted, problems.isEmpty()
                ? changes.isEmpty() ? TrialOutcome.UNCHANGED : TrialOutcome.CHANGED : TrialOutcome.BROKEN, problems,
                changes);
    }

    /** Without the comments that say which version a part is from. */
    private static String comparable(PipelineText text) {
        return text.expanded().replaceAll("(?m)^ *# from .*\\R", "");
    }

    private static boolean takes(Which which, String version) {
        return switch (which) {
            case Which.Matching(String pattern) -> new BranchPattern(pattern).matches(version);
            case Which.LiveIn live -> false;
            default -> true;
        };
    }
}
