package dev.paseo.service.releaserecord;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.TrailExport;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.deployment.DeploymentViews;
import dev.paseo.service.deployment.PlaceViews;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.releaserecord.ReleaseRecordMapper.PromotionRow;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Puts together all that is known of deployments into one document. */
@Component
class ReleaseRecords {

    private static final int MOST = 100;
    private static final Duration LONGEST = Duration.ofDays(400);

    /**
     * All of a deployment, of a set's promotion, or of a period of an environment.
     *
     * @param format   1
     * @param about    what it is a record of, in words
     * @param zone     in which its page tells times
     * @param madeAt   when it was put together: what comes later is not in it
     * @param since    of a period: from when on
     * @param until    of a period: before when
     * @param set      the set that was promoted
     * @param releases the oldest first; of a period those that went live in it, or ended in it without having done so
     * @param hidden   how many more there are that the reader may not see
     * @param head     the newest signed head of the audit trail; absent while nothing is in it
     * @param covered  whether this head covers every entry of the trail that is in the record
     */
    record ReleaseRecordView(int format, String about, String zone, Instant madeAt, String madeBy,
            Optional<Instant> since, Optional<Instant> until, Optional<SetRecordView> set, List<ReleaseView> releases,
            int hidden, Optional<TrailExport.HeadView> head, boolean covered) {}

    record SetRecordView(String name, String by, String comment, Instant requestedAt) {}

    /** A file of a version; {@code digest} is its SHA-256. */
    record RecordFileView(String name, String fileName, String digest, long size) {}

    /**
     * What was deployed.
     *
     * @param digest  of the version's artifacts, commit and recipe, as approvals name it
     * @param sealedAt when it was made, and never changed since
     */
    record RecordVersionView(Optional<String> repository, String branch, Optional<String> commit,
            Optional<String> summary, Optional<Long> run, Instant sealedAt, String digest,
            List<RecordFileView> artifacts) {}

    /** What became of it on a host. */
    record RecordHostView(String host, String outcome, Optional<String> reason) {}

    /**
     * One deployment.
     *
     * @param subject    digest of what exactly was approved
     * @param rules      what its gate asked when it began, or asks, in words
     * @param decisions  who said what, when, and in whose place
     * @param difference from what was live before
     * @param added      evidence that was added to the version after it was sealed
     * @param tasks      what agents did on hosts, with its steps
     * @param trail      what the audit trail has about it, the oldest first; at most 200 entries
     */
    record ReleaseView(DeploymentViews.DeploymentSummary deployment, RecordVersionView version, String subject,
            Optional<String> emergency, List<String> rules, List<GateViews.GateDecisionView> decisions,
            List<GateViews.ListView> checklists, Comparisons.ComparisonView difference,
            List<Evidence.AddedEvidenceView> added,
            List<PlaceViews.MovementView> plan, List<RecordHostView> hosts, List<StepLog.HostTaskView> tasks,
            List<Causes.Link> causes, List<AuditTrail.Written> trail) {}

    private final ReleaseRecordMapper mapper;
    private final Deployments deployments;
    private final Environments environments;
    private final RecordedDeployments releases;
    private final TrailExport trail;

    ReleaseRecords(ReleaseRecordMapper mapper, Deployments deployments, Environments environments,
            RecordedDeployments releases,
            TrailExport trail) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.environments = environments;
        this.releases = releases;
        this.trail = trail;
    }

    /** Who asks for a record, and when. */
    record Reader(Person person, Instant now) {}

    ReleaseRecordView ofDeployment(long id, Reader reader) {
        Deployment row = deployments.get(id);
        Permission.require(reader.person(), Action.LOOK, Optional.of(row.component()), Optional.of(row.environment()));
        return record(row.component() + " " + row.version() + " into " + row.environment(), zone(row.environment()),
                List.of(row), reader);
    }

    ReleaseRecordView ofPromotion(long id, Reader reader) {
        PromotionRow row = mapper.promotion(id)
                .orElseThrow(() -> Refusal.notFound("There is no promotion " + id + " of a set"));
        ReleaseRecordView record = record("set " + row.name() + " into " + row.environment(), zone(row.environment()),
                mapper.ofPromotion(id).stream().map(deployments::get).toList(), reader);
        return new ReleaseRecordView(record.format(), record.about(), record.zone(), record.madeAt(), record.madeBy(),
                Optional.empty(), Optional.empty(),
                Optional.of(new SetRecordView(row.name(), row.by(), row.comment(), row.requestedAt())),
                record.releases(), record.hidden(), record.head(), record.covered());
    }

    /** {@code until} is not later than now: a record says what was, and says the same whenever it is asked for. */
    ReleaseRecordView ofPeriod(String name, Instant since, Instant until, Reader reader) {
        Environments.Environment environment = environments.named(name);
        if (!since.isBefore(until) || Duration.between(since, until).compareTo(LONGEST) > 0) {
            throw Refusal.invalid("/since", "should be before until, and at most " + LONGEST.toDays()
                    + " days before it");
        }
        if (until.isAfter(reader.now())) {
            throw Refusal.invalid("/until", "should not be later than now: a record says what was");
        }
        List<Long> all = mapper.ofPeriod(environment.id(), since, until, MOST + 1);
        if (all.size() > MOST) {
            throw Refusal.invalid("/since", "should be nearer to until: more than " + MOST
                    + " deployments are in between");
        }
        ReleaseRecordView record = record(name, environment.zone(), all.stream().map(deployments::get).toList(),
                reader);
        return new ReleaseRecordView(record.format(), record.about(), record.zone(), record.madeAt(), record.madeBy(),
                Optional.of(since), Optional.of(until), Optional.empty(), record.releases(), record.hidden(),
                record.head(), record.covered());
    }

    private String zone(String environment) {
        return environments.named(environment).zone();
    }

    private ReleaseRecordView record(String about, String zone, List<Deployment> rows, Reader reader) {
        List<ReleaseView> told = rows.stream()
                .filter(row -> reader.person().may(Action.LOOK, Optional.of(row.component()),
                        Optional.of(row.environment())))
                .map(row -> releases.of(row, reader)).toList();
        Optional<TrailExport.HeadView> head = trail.newestHead();
        boolean covered = told.stream().flatMap(release -> release.trail().stream())
                .allMatch(entry -> entry.position().filter(position -> head
                        .filter(signed -> position < signed.size()).isPresent()).isPresent());
        return new ReleaseRecordView(1, about, zone, reader.now(), reader.person().name(), Optional.empty(),
                Optional.empty(), Optional.empty(), told, rows.size() - told.size(), head, covered);
    }
}
