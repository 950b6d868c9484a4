package dev.paseo.service.origin;

import dev.paseo.service.origin.OriginMapper.FoundRow;
import dev.paseo.service.origin.OriginMapper.MadeRow;
import dev.paseo.service.origin.OriginMapper.OnHostRow;
import dev.paseo.service.origin.OriginMapper.StayRow;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Tells the story of a file by its digest. */
@Component
class Origins {

    /**
     * What a file is.
     *
     * @param sha256   its digest, in hexadecimal
     * @param versions that have it among what they were sealed with: those that are live, then the newest; at most 20
     * @param made     by runs that sealed no version with it; never deployed; at most 20
     * @param key      the service's public key, as heads have it
     */
    record OriginView(String sha256, List<SealedFileView> versions, List<MadeFileView> made, String key) {}

    /**
     * A file of a sealed version.
     *
     * @param artifact  what the version calls it
     * @param origin    how the version arrived, where no run sealed it
     * @param statement how the version came about, signed
     * @param holds     whether the signature is good
     * @param stays     where the version is live, then where it was, the newest first; at most 200
     */
    record SealedFileView(String component, String version, String artifact, String fileName, long size, String branch,
            Optional<String> commit, Optional<String> commitSummary, Optional<Long> run, Optional<String> origin,
            Instant sealedAt, boolean blocked, Statements.EnvelopeView statement, boolean holds,
            List<LiveStayView> stays) {}

    /**
     * A time for which a version was live in an environment.
     *
     * @param until     not there: it is live
     * @param emergency why it was deployed past its gate
     * @param decisions at its gate, or at the gate onward from the environment before
     */
    record LiveStayView(String environment, long deployment, Instant from, Optional<Instant> until,
            Optional<String> emergency, List<DecidedView> decisions, List<OnHostView> hosts) {}

    /**
     * A decision of a person.
     *
     * @param inPlaceOf whose deputy decided
     */
    record DecidedView(String by, Optional<String> inPlaceOf, boolean yes, Instant at) {}

    /**
     * A time for which a host had it.
     *
     * @param until not there: it has it
     */
    record OnHostView(String host, Instant from, Optional<Instant> until) {}

    /** A file that a run made. */
    record MadeFileView(String component, long run, String artifact, String fileName, Instant at) {}

    private static final int MOST = 20;

    private final OriginMapper mapper;
    private final StatementMapper stated;
    private final Statements statements;

    Origins(OriginMapper mapper, StatementMapper stated, Statements statements) {
        this.mapper = mapper;
        this.stated = stated;
        this.statements = statements;
    }

    /**
     * What it is; nothing in it where it is none of ours.
     *
     * @param seen the components that may be told of
     */
    OriginView of(String sha256, Predicate<String> seen) {
        List<FoundRow> found = mapper.versions(sha256).stream().filter(row -> seen.test(row.component())).limit(MOST)
                .toList();
        List<StayRow> stays = found.isEmpty() ? List.of()
                : mapper.stays(found.stream().map(FoundRow::version).toList());
        List<Long> deployments = stays.stream().map(StayRow::deployment).distinct().toList();
        List<OnHostRow> hosts = deployments.isEmpty() ? List.of() : mapper.hosts(deployments);
        List<StatementMapper.DecidedRow> decided = deployments.isEmpty() ? List.of() : stated.decided(deployments);
        List<MadeRow> made = mapper.made(sha256).stream().filter(row -> seen.test(row.component()))
                .filter(row -> found.stream().noneMatch(each -> each.component().equals(row.component())
                        && Optional.ofNullable(each.run()).equals(Optional.of(row.run()))))
                .limit(MOST).toList();
        return new OriginView(sha256, found.stream().map(row -> sealed(row, stays.stream()
                .filter(stay -> stay.version() == row.version()).map(stay -> stay(stay, hosts, decided)).toList()))
                .toList(),
                made.stream().map(row -> new MadeFileView(row.component(), row.run(), row.name(), row.fileName(),
                        row.at())).toList(),
                statements.key());
    }

    private SealedFileView sealed(FoundRow row, List<LiveStayView> stays) {
        Statements.EnvelopeView statement = statements.ofVersion(row.version(), Optional.ofNullable(row.envelope()));
        return new SealedFileView(row.component(), row.number(), row.name(), row.fileName(), row.size(), row.branch(),
                Optional.ofNullable(row.commitId()), Optional.ofNullable(row.summary()),
                Optional.ofNullable(row.run()), Optional.ofNullable(row.origin()), row.sealedAt(),
                row.blockedAt() != null, statement, statements.holds(statement), stays);
    }

    private static LiveStayView stay(StayRow stay, List<OnHostRow> hosts,
            List<StatementMapper.DecidedRow> decided) {
        return new LiveStayView(stay.environment(), stay.deployment(), stay.fromAt(),
                Optional.ofNullable(stay.toAt()), Optional.ofNullable(stay.emergency()),
                decided.stream().filter(row -> row.deployment() == stay.deployment())
                        .map(row -> new DecidedView(row.by(), Optional.ofNullable(row.inPlaceOf()), row.yes(),
                                row.at()))
                        .toList(),
                hosts.stream().filter(row -> row.deployment() == stay.deployment())
                        .map(row -> new OnHostView(row.host(), row.fromAt(), Optional.ofNullable(row.toAt())))
                        .toList());
    }
}
