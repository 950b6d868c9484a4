package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.RollbackTarget;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.place.DeploymentMapper.DoubtRow;
import dev.paseo.service.place.DeploymentMapper.PastRow;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Deployments, as others look them up and add them. What becomes of one is for {@link Places} alone. */
@Component
public class Deployments {

    /** What its tasks need of a deployment, without its state, which is long where there are many hosts. */
    public record Brief(long id, long placeId, long versionId, DeploymentStatus status, @Nullable Long replacesId) {}

    /**
     * One that is requested.
     *
     * @param person    who asked; none where it goes by itself
     * @param emergency why it goes past unmet criteria
     */
    public record Asked(long place, long version, Kind kind, Optional<Long> person, long cause, long settings,
            Optional<String> emergency) {}

    /** What a list of deployments is to have; what is empty is not asked for. */
    public record Filter(Optional<String> component, Optional<String> environment, Optional<DeploymentStatus> status,
            Optional<String> by, Optional<Instant> since, Optional<Instant> until, Cursor cursor, int limit) {}

    /** One that was live once, and its version. */
    public record Past(RollbackTarget.Past deployment, long version) {}

    /** @param version what it has; empty where that is nothing, or not known */
    public record HostLive(String host, Optional<String> version, Optional<Instant> since) {}

    /**
     * That somebody looks at it afterwards.
     *
     * @param reason what was loosened; empty for an emergency
     */
    public record ToReview(Instant due, Optional<String> reason, Optional<String> loosenedBy, boolean done) {}

    private final DeploymentMapper mapper;
    private final PlaceRepository repository;
    private final ServiceClock clock;

    Deployments(DeploymentMapper mapper, PlaceRepository repository, ServiceClock clock) {
        this.mapper = mapper;
        this.repository = repository;
        this.clock = clock;
    }

    public Optional<Deployment> find(long id) {
        return mapper.byId(id);
    }

    /** Refuses a number that no deployment has. */
    public Deployment get(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("There is no deployment " + id));
    }

    public Brief brief(long id) {
        return mapper.brief(id);
    }

    public DeploymentState state(Deployment deployment) {
        return repository.state(deployment);
    }

    /** In the order of their requests. */
    public List<Deployment> ofVersion(long version) {
        return mapper.ofVersion(version);
    }

    /** The newest first. */
    public List<Deployment> list(Filter filter) {
        return mapper.list(new DeploymentMapper.FilterRow(filter.component().orElse(null),
                filter.environment().orElse(null), filter.status().orElse(null), filter.by().orElse(null),
                filter.since().orElse(null), filter.until().orElse(null), filter.cursor().before(),
                filter.cursor().after(),
                filter.limit()));
    }

    /** Those of a place, the newest first. */
    public List<Deployment> newest(long place, int limit) {
        return mapper.newest(place, limit);
    }

    /** What was live at a place, the newest first. */
    public List<Past> past(long place) {
        return mapper.past(place).stream().map(Deployments::past).toList();
    }

    private static Past past(PastRow row) {
        boolean undone = row.status() == DeploymentStatus.UNDONE || row.status() == DeploymentStatus.STOPPED;
        return new Past(new RollbackTarget.Past(row.id(), row.version(), row.kind(),
                Optional.ofNullable(row.replacesId()), undone, row.blocked(), row.line(), row.lineOrder()),
                row.versionId());
    }

    /** Adds one that waits, in the transaction under way, in which the place decides about it; its number. */
    public long ask(Asked asked) {
        DeploymentMapper.NewDeployment row = new DeploymentMapper.NewDeployment(asked, clock.now());
        mapper.add(row);
        return row.id;
    }

    /** What each host of a place has. */
    public List<HostLive> hostsLive(long place) {
        return mapper.hostsLive(place).stream().map(
                row -> new HostLive(row.host(), Optional.ofNullable(row.version()), Optional.ofNullable(row.since())))
                .toList();
    }

    /** The hosts of a place of which nobody knows what they have, and since when. */
    public Map<String, Instant> unknown(long place) {
        return mapper.doubts(place).stream().collect(Collectors.toMap(DoubtRow::host, DoubtRow::since));
    }

    public boolean isUnknown(long place, long host) {
        return mapper.inDoubt(place, host);
    }

    /** What was answered when a run was started, as JSON. */
    public Optional<String> answers(long component, long run) {
        return mapper.answers(component, run);
    }

    /** Somebody has to look at it until then. */
    public void toReview(long deployment, Instant due) {
        mapper.review(deployment, due);
    }

    public Optional<ToReview> toReview(long deployment) {
        return mapper.toReview(deployment).map(row -> new ToReview(row.dueAt(), Optional.ofNullable(row.reason()),
                Optional.ofNullable(row.loosenedBy()), row.doneAt() != null));
    }

    /** Somebody looked at it; whether nobody had before. */
    public boolean reviewed(long deployment, long person, String comment) {
        return mapper.reviewed(deployment, person, comment, clock.now()) == 1;
    }
}
