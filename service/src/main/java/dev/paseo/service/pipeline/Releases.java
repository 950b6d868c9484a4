package dev.paseo.service.pipeline;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.NearestName;
import dev.paseo.language.file.PipelineFile.Take.Which;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PieceSource.Found;
import dev.paseo.service.pipeline.PipelineFileMapper.ComponentRow;
import dev.paseo.service.pipeline.PipelineFileMapper.RecordedRow;
import dev.paseo.service.pipeline.PipelineFileMapper.ReleaseRow;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Where pieces are found: in the pipeline files of versions, as they are now or as they were written down. */
@Component
public class Releases {

    /** Whichever is the newest, as a file says it in words. */
    public static final String NEWEST = new Which.Newest().words();
    private static final String LIVE_IN = new Which.LiveIn("").words();

    private final PipelineFileMapper mapper;

    Releases(PipelineFileMapper mapper) {
        this.mapper = mapper;
    }

    /** As a file of this component finds them now. */
    public PieceSource now(long component, String name) {
        return now(name, other -> other.id() == component || mapper.opened(component, other.id()).isPresent());
    }

    /** As a component would find them that is to be registered, with these opened to it. */
    public PieceSource now(String name, List<String> opened) {
        return now(name, other -> opened.contains(other.name()));
    }

    private PieceSource now(String name, Predicate<ComponentRow> opened) {
        Map<String, Found> known = new HashMap<>();
        return (of, which) -> known.computeIfAbsent(of + " " + which.words(), any -> mapper.named(of)
                .map(other -> opened.test(other) ? choose(other, which)
                        : new Found.Not("is not opened to " + name + ": paseo component open " + name + " --source "
                                + other.name()))
                .orElseGet(() -> new Found.Not("is of no component that is known here"
                        + NearestName.hint(of, mapper.names()))));
    }

    /**
     * What a use comes to, whoever has it.
     *
     * @param wanted which version, as a file says it in words
     */
    public Found next(String of, String wanted) {
        return mapper.named(of).map(other -> choose(other, which(wanted)))
                .orElseGet(() -> new Found.Not("is of no component that is known here"));
    }

    private static Which which(String wanted) {
        return wanted.startsWith(LIVE_IN) ? new Which.LiveIn(wanted.substring(LIVE_IN.length()))
                : wanted.equals(NEWEST) ? new Which.Newest() : new Which.Matching(wanted);
    }

    /** As they were when a file was put together. */
    PieceSource recorded(long file) {
        Map<String, RecordedRow> rows = new HashMap<>();
        mapper.recorded(file).forEach(row -> rows.put(row.named() + " " + row.wanted(), row));
        return (of, which) -> Optional.ofNullable(rows.get(of + " " + which.words()))
                .<Found>map(row -> new Found.Is(new PieceSource.Release(row.component(), row.number(),
                        mapper.byId(row.file()).text())))
                .orElseGet(() -> new Found.Not("was not found when this file was read last"));
    }

    private Found choose(ComponentRow of, Which which) {
        return switch (which) {
            case Which.LiveIn(String environment) -> mapper.liveIn(of.id(), environment)
                    .map(row -> row.blocked() ? blocked(row) : row.trusted() ? release(row) : untrusted(row))
                    .orElseGet(() -> new Found.Not("is wanted as it is live in " + environment
                            + ", where nothing of it is live"));
            case Which.Matching(String pattern) -> among(of, pattern, "matches " + pattern);
            default -> among(of, "**", "could be taken");
        };
    }

    private Found among(ComponentRow of, String pattern, String how) {
        BranchPattern matching = new BranchPattern(pattern);
        List<ReleaseRow> found = mapper.releases(of.id()).stream().filter(row -> matching.matches(row.number()))
                .toList();
        return found.stream().filter(row -> !row.blocked()).findFirst().map(this::release)
                .orElseGet(() -> found.size() == 1 ? blocked(found.getFirst())
                        : new Found.Not(found.isEmpty()
                                ? "has no version that " + how + ": it is built from a trusted branch, and sealed"
                                : "has " + found.size() + " versions of which each " + how
                                        + ", and every one is blocked"));
    }

    private static Found blocked(ReleaseRow row) {
        return new Found.Not("is wanted in version " + row.number() + ", which is blocked");
    }

    private static Found untrusted(ReleaseRow row) {
        return new Found.Not(
                "is live there in version " + row.number() + ", which was not built from a trusted branch");
    }

    private Found release(ReleaseRow row) {
        return row.file() == null
                ? new Found.Not("is wanted in version " + row.number() + ", which arrived from elsewhere: it has no "
                        + "pipeline file, and so no pieces")
                : new Found.Is(new PieceSource.Release(row.component(), row.number(),
                        mapper.byId(row.file()).text()));
    }
}
