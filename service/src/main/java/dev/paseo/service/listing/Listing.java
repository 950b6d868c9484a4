package dev.paseo.service.listing;

import dev.paseo.core.run.RunStatus;
import dev.paseo.service.component.Components;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.run.RunViews.RunSummary;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs and versions of all components, by what is asked of them. */
@Component
class Listing {

    /**
     * @param next goes on after these, as {@code before}, or as {@code after} where that was asked; absent where there
     *             are no more
     */
    record RunList(List<RunSummary> runs, Optional<Long> next) {}

    /**
     * A version as it stands in a list.
     *
     * @param trusted whether it comes from a trusted branch
     * @param run     the number of the run that built it; absent where it was built elsewhere
     * @param blocked since when it is blocked; absent where it is not
     * @param live    the environments where it is live now
     */
    record ListedVersion(String component, String number, String branch, boolean trusted, Optional<String> commit,
            Optional<String> commitSummary, Optional<Long> run, Instant sealedAt, Optional<Instant> blocked,
            List<String> live) {}

    /**
     * @param next goes on after these, as {@code before}, or as {@code after} where that was asked; absent where there
     *             are no more
     */
    record VersionList(List<ListedVersion> versions, Optional<Long> next) {}

    /** What is asked of any list; what is empty is not asked. */
    record Asked(Optional<String> component, Optional<String> label, Optional<String> branch, Optional<Instant> since,
            Optional<Instant> until, Cursor cursor, int limit) {

        Asked {
            limit = Math.clamp(limit, 1, MOST);
        }
    }

    private static final int MOST = 200;

    private final ListingMapper mapper;
    private final Components components;
    private final Environments environments;
    private final Absences absences;

    Listing(ListingMapper mapper, Components components, Environments environments, Absences absences) {
        this.mapper = mapper;
        this.components = components;
        this.environments = environments;
        this.absences = absences;
    }

    RunList runs(Asked asked, Optional<RunStatus> status, Optional<String> author, boolean newest) {
        List<ListingMapper.RunRow> rows = mapper.runs(new ListingMapper.RunsAsked(id(asked),
                asked.label().orElse(null), asked.branch().orElse(null), status.orElse(null),
                author.orElse(null), asked.since().orElse(null), asked.until().orElse(null),
                newest, asked.cursor().before(), asked.cursor().after(), asked.limit()));
        return new RunList(rows.stream().map(this::listed).toList(),
                next(rows.stream().map(ListingMapper.RunRow::id), asked.limit()));
    }

    VersionList versions(Asked asked, Optional<String> environment, Optional<Boolean> blocked) {
        environment.ifPresent(environments::named);
        List<ListingMapper.VersionRow> rows = mapper.versions(new ListingMapper.VersionsAsked(id(asked),
                asked.label().orElse(null), asked.branch().orElse(null), environment.orElse(null),
                blocked.orElse(null), asked.since().orElse(null), asked.until().orElse(null),
                asked.cursor().before(), asked.cursor().after(), asked.limit()));
        return new VersionList(rows.stream().map(Listing::listed).toList(),
                next(rows.stream().map(ListingMapper.VersionRow::id), asked.limit()));
    }

    private @Nullable Long id(Asked asked) {
        return asked.component().map(name -> components.named(name).id()).orElse(null);
    }

    private static Optional<Long> next(Stream<Long> ids, int most) {
        List<Long> all = ids.toList();
        return all.size() == most ? Optional.of(all.getLast()) : Optional.empty();
    }

    private RunSummary listed(ListingMapper.RunRow row) {
        return new RunSummary(row.component(), row.number(), row.status(), row.branch(), row.commitId(),
                row.commitSummary(), row.commitAuthor(), row.version(), row.sealed(), Optional.ofNullable(row.reason()),
                row.createdAt(), Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()),
                absences.secondsWithin(row.startedAt(), row.endedAt()));
    }

    private static ListedVersion listed(ListingMapper.VersionRow row) {
        return new ListedVersion(row.component(), row.number(), row.branch(), row.trusted(),
                Optional.ofNullable(row.commitId()), Optional.ofNullable(row.commitSummary()),
                Optional.ofNullable(row.run()), row.sealedAt(), Optional.ofNullable(row.blockedAt()),
                Optional.ofNullable(row.live()).map(names -> List.of(names.split(","))).orElse(List.of()));
    }
}
