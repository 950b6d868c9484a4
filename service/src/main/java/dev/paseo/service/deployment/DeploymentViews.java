package dev.paseo.service.deployment;

import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.text.Word;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Deployments as people look at them and decide about them. */
@Component
public class DeploymentViews {

    /**
     * A host within a deployment.
     *
     * @param live    what it has now; empty where it has nothing, or nobody knows
     * @param unknown nobody knows what it has, until its agent has looked
     */
    public record HostView(String host, HostState.Phase phase, boolean touched, Optional<String> reason,
            Optional<String> url,
            Optional<String> live, boolean unknown) {}

    /**
     * A deployment in a list; {@code emergency}: it goes past unmet criteria, and is reviewed afterwards; {@code away}:
     * for how many seconds between its beginning and its going live the service was not at work.
     */
    public record DeploymentSummary(long id, String component, String version, String environment, Kind kind,
            boolean emergency, DeploymentStatus status, Optional<String> requestedBy,
            Optional<String> reason, Instant requestedAt, Optional<Instant> startedAt, Optional<Instant> liveAt,
            Optional<Instant> endedAt, long away) {}

    /**
     * A deployment, whole.
     *
     * @param subject   digest of what an approval would approve now; to be sent along with a decision
     * @param mayNot    why the reader may not decide; empty where they may
     * @param mayNotTick why the reader may not tick its checklist
     * @param newer     a newer version of the line that could be requested instead
     * @param cautions  what it goes past, as long as it is not over: a hold, a step back in the line
     * @param behindUrl the address where the version can be seen before it enters here
     */
    public record DeploymentView(DeploymentSummary deployment, List<GateViews.CriterionView> gate, String subject,
            Optional<String> mayNot, Optional<String> mayNotTick, boolean commentRequired,
            List<GateViews.GateDecisionView> decisions, List<GateViews.ListView> checklists, List<HostView> hosts,
            List<StepLog.HostTaskView> tasks, List<Causes.Link> causes, Comparisons.ComparisonView comparison,
            List<Environments.Stay> walk, List<String> route, Optional<Long> run, Optional<String> url,
            Optional<String> behindUrl,
            Optional<String> newer, int checks, boolean undoes, List<PlaceViews.MovementView> plan,
            Optional<Instant> until, int share, boolean asksToGoOn,
            Optional<String> emergency, List<String> cautions, String zone) {}

    private final Deployments deployments;
    private final Places places;
    private final Gates gates;
    private final Sources sources;
    private final Json json;

    /** Where the parts of a view come from. */
    @Component
    record Sources(Environments environments, Versions versions, Comparisons comparisons, Causes causes, StepLog steps,
            GateViews gateViews, HostContents contents, PlaceViews placeViews, Absences absences) {}

    DeploymentViews(Deployments deployments, Places places, Gates gates, Sources sources, Json json) {
        this.deployments = deployments;
        this.places = places;
        this.gates = gates;
        this.sources = sources;
        this.json = json;
    }

    public DeploymentSummary summary(Deployment row) {
        return new DeploymentSummary(row.id(), row.component(), row.version(), row.environment(),
                row.kind(), row.emergencyReason() != null, row.status(),
                Optional.ofNullable(row.requestedBy()), Optional.ofNullable(row.reason()), row.requestedAt(),
                Optional.ofNullable(row.startedAt()),
                Optional.ofNullable(row.liveAt()), Optional.ofNullable(row.endedAt()),
                sources.absences().secondsWithin(row.startedAt(), row.liveAt() == null ? row.endedAt() : row.liveAt()));
    }

    public DeploymentView whole(Deployment row, String reader) {
        Place place = sources.environments().placeById(row.placeId());
        boolean waits = row.status() == DeploymentStatus.WAITING;
        Gates.AtGate at = places.atGate(place, row);
        Versions.Version version = at.version();
        DeploymentState state = deployments.state(row);
        Optional<Evaluation> gate = Optional.of(row).filter(each -> waits)
                .map(each -> places.knowing(place.id(), version, () -> gates.evaluate(now(each))));
        String subject = Optional.ofNullable(row.subject()).or(() -> gate.map(Evaluation::digest))
                .orElseGet(() -> gates.digest(at));
        Optional<String> over = Optional
                .of("deployment " + row.id() + " does not wait for a decision: it is " + Word.of(row.status()));
        return new DeploymentView(summary(row), GateViews.criteria(gate.map(Evaluation::verdict).orElse(Verdict.OPEN)),
                subject, gate.map(each -> each.refusal(reader)).orElse(over),
                gate.map(each -> each.tickRefusal(reader)).orElse(over),
                gate.filter(Evaluation::needsComment).isPresent(),
                sources.gateViews().decisions(at.standing(), subject),
                sources.gateViews().lists(at), hosts(place, row),
                sources.steps().ofDeployment(row.id()),
                sources.causes().chain(row.causeId()), comparison(place, row, version),
                sources.environments().stays(version.id()),
                version.route().environments(), version.runNumber(), place.url(), behindUrl(place),
                newer(place, row, version),
                version.recipe().map(recipe -> recipe.eachHost().size()).orElse(0),
                state.onFailure() == DeploymentState.OnFailure.UNDO, PlaceViews.movements(state),
                state.course().until(), state.course().share(),
                state.asks(), Optional.ofNullable(row.emergencyReason()),
                withReview(cautions(place, row, version), row.id()),
                sources.environments().byId(place.environmentId()).zone());
    }

    /** What went live under something that was loosened says so until somebody has looked at it. */
    private List<String> withReview(List<String> cautions, long deployment) {
        List<String> all = new ArrayList<>(cautions);
        deployments.toReview(deployment).filter(review -> !review.done()).flatMap(Deployments.ToReview::reason)
                .ifPresent(reason -> all.add(
                        "It went live within a day of this: " + reason
                                + ". Somebody else reviews it within three days: paseo review deployment "
                                + deployment));
        return all;
    }

    private List<String> cautions(Place place, Deployment row, Versions.Version version) {
        boolean begins = row.status().ahead() && row.requestedBy() != null;
        return begins ? sources.placeViews().cautions(place, version, row.kind()) : List.of();
    }

    private Gates.AtGate now(Deployment row) {
        return places.atGate(sources.environments().placeById(row.placeId()), row);
    }

    private List<HostView> hosts(Place place, Deployment row) {
        DeploymentState state = deployments.state(row);
        Map<String, Optional<String>> live = new java.util.HashMap<>();
        deployments.hostsLive(place.id()).forEach(host -> live.put(host.host(), host.version()));
        Set<String> unknown = deployments.unknown(place.id()).keySet();
        Map<String, Optional<String>> urls = new java.util.HashMap<>();
        sources.environments().hosts(place.id()).forEach(host -> urls.put(host.name(), host.url()));
        return state.hosts().stream()
                .map(host -> new HostView(host.host(), host.phase(), host.touched(), host.reason(),
                        urls.getOrDefault(host.host(), Optional.empty()),
                        live.getOrDefault(host.host(), Optional.empty()), unknown.contains(host.host())))
                .toList();
    }

    Comparisons.ComparisonView comparison(Deployment row) {
        return comparison(sources.environments().placeById(row.placeId()), row,
                sources.versions().byId(row.versionId()));
    }

    /** Against what it replaces or, before it begins, what is live. */
    private Comparisons.ComparisonView comparison(Place place, Deployment row, Versions.Version version) {
        Optional<Deployment> against = (row.startedAt() == null ? place.liveDeployment()
                : Optional.ofNullable(row.replacesId())).flatMap(deployments::find);
        Optional<Versions.Version> live = against.map(other -> sources.versions().byId(other.versionId()));
        long settings = row.startedAt() == null ? place.settingsRevision() : row.settingsRevision();
        Map<String, Long> secrets = row.startedAt() == null ? sources.contents().secrets(place, version)
                : json.read(row.secretRevisions(), HostContents.REVISIONS);
        return sources.comparisons().of(live, version,
                against.map(other -> new Comparisons.Set(
                        sources.environments().settings(place.id(), other.settingsRevision()),
                        json.read(other.secretRevisions(), HostContents.REVISIONS))),
                Optional.of(new Comparisons.Set(sources.environments().settings(place.id(), settings), secrets)));
    }

    private Optional<Place> followed(Place place) {
        return sources.environments().byId(place.environmentId()).rules().followed().stream()
                .flatMap(other -> sources.environments().find(place.component(), other).stream()).findFirst();
    }

    private Optional<String> behindUrl(Place place) {
        return followed(place).flatMap(Place::url);
    }

    /** A newer version of the same line, live in the environment that this one follows. */
    private Optional<String> newer(Place place, Deployment row, Versions.Version version) {
        if (row.status() != DeploymentStatus.WAITING) {
            return Optional.empty();
        }
        return followed(place).flatMap(places::live)
                .filter(other -> other.line() == version.line() && other.order() > version.order())
                .map(Versions.Version::number);
    }

    List<DeploymentSummary> ofVersion(long version) {
        return deployments.ofVersion(version).stream().map(this::summary).toList();
    }
}
