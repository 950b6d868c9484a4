package dev.paseo.service.deployment;

import dev.paseo.core.deployment.Cautions;
import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.Movement;
import dev.paseo.core.deployment.Standing;
import dev.paseo.core.text.Word;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.host.HostReports;
import dev.paseo.service.place.Deployments.HostLive;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.place.Planner;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Places as people look at them. */
@Component
public class PlaceViews {

    /**
     * One part of a plan.
     *
     * @param state {@code done}, {@code now} or {@code ahead}; {@code broken} where it went wrong, and {@code left} for
     *              what was not done and will not be
     */
    public record MovementView(String what, List<String> hosts, Optional<Long> seconds, int share,
            Optional<String> name,
            String state) {}

    /**
     * What would happen.
     *
     * @param reason    why it cannot be deployed there
     * @param cautions what whoever deploys should know and would go past: a hold, a step back in the line
     * @param gate     what would stand before it, as it is judged now
     * @param onward   the environments that it goes on to by itself from there
     */
    record DeploymentPlanView(String version, List<MovementView> plan, Optional<String> reason, List<String> cautions,
            List<GateViews.CriterionView> gate, List<String> onward) {}

    /**
     * A host: what it has, since when, what differs, and how it is.
     *
     * @param reachedBy     the agent that acts for one without an agent of its own
     * @param unknownSince  since when nobody knows what it has: a deployment was lost there, or could not be undone
     * @param olderSettings the variables and secrets that are set otherwise for it now than when it was deployed to
     */
    record HereView(String host, Optional<String> url, Optional<String> side, Optional<String> version,
            Optional<Instant> since, Optional<String> drift,
            Optional<Instant> driftedSince, Optional<String> failing, Optional<Instant> unhealthySince,
            Optional<Instant> checkedAt, Optional<String> maintenance, Optional<String> reachedBy,
            Optional<Instant> unknownSince, List<String> olderSettings) {}

    /**
     * A place.
     *
     * @param closed       the closure by hand
     * @param closedPeriod the period of the environment's calendar, which closes it as well
     * @param differing    the hosts that a repair would bring to what is live
     * @param rollback     the version that a rollback would go to
     */
    record PlaceView(String component, String environment, Optional<String> url, Optional<Instant> retired,
            Optional<String> version, Optional<Long> deployment, Optional<String> side,
            Optional<Restraints.Hold> hold, Optional<Restraints.Closure> closed,
            Optional<Restraints.ClosedPeriod> closedPeriod, List<HereView> hosts,
            List<String> differing, Optional<String> rollback,
            Map<String, String> variables, long settingsRevision, String zone) {}

    private final Places places;
    private final Planner planner;
    private final Deployments deployments;
    private final HostReports reports;
    private final Sources sources;

    /** Where the parts of a view come from. */
    @Component("placeSources")
    record Sources(Environments environments, WaysBack ways, Holds holds, Recording recording, HostContents contents) {}

    PlaceViews(Places places, Planner planner, Deployments deployments, HostReports reports, Sources sources) {
        this.places = places;
        this.planner = planner;
        this.deployments = deployments;
        this.reports = reports;
        this.sources = sources;
    }

    PlaceView view(Place place) {
        return new PlaceView(place.component(), place.environment(), place.url(), place.retired(),
                places.live(place).map(Versions.Version::number), place.liveDeployment(),
                place.liveSide(), sources.holds().held(place), sources.holds().closed(place.environmentId()),
                sources.holds().period(place.environmentId()),
                hosts(place), sources.recording().differing(place),
                sources.ways().target(place).map(Versions.Version::number),
                sources.environments().settings(place.id(), place.settingsRevision()).variables(),
                place.settingsRevision(),
                sources.environments().byId(place.environmentId()).zone());
    }

    private List<HereView> hosts(Place place) {
        Map<String, HostLive> have = deployments.hostsLive(place.id()).stream()
                .collect(Collectors.toMap(HostLive::host, row -> row));
        Map<String, HostReports.Report> seen = reports.ofPlace(place.id());
        Map<String, Instant> doubts = deployments.unknown(place.id());
        Map<String, HostContent> had = sources.contents().had(place);
        Function<String, HostContent> now = places.live(place).map(version -> sources.contents().now(place, version))
                .orElse(host -> new HostContent("", Map.of(), Map.of()));
        return sources.environments().hosts(place.id()).stream()
                .map(host -> here(host, Optional.ofNullable(have.get(host.name())),
                        Optional.ofNullable(seen.get(host.name())), Optional.ofNullable(doubts.get(host.name())),
                        Optional.ofNullable(had.get(host.name()))
                                .filter(has -> place.liveSide().isEmpty() || host.side().equals(place.liveSide()))
                                .map(has -> now.apply(host.name()).settingsUnlike(has)).orElse(List.of())))
                .toList();
    }

    private HereView here(PlaceHost host, Optional<HostLive> has, Optional<HostReports.Report> seen,
            Optional<Instant> unknownSince, List<String> olderSettings) {
        return new HereView(host.name(), host.url(), host.side(), has.flatMap(HostLive::version),
                has.flatMap(HostLive::since), seen.flatMap(HostReports.Report::drift),
                seen.flatMap(HostReports.Report::driftedSince), seen.flatMap(HostReports.Report::failing),
                seen.flatMap(HostReports.Report::unhealthySince), seen.map(HostReports.Report::checkedAt),
                host.maintenance(), host.servedBy().map(sources.environments()::agentName), unknownSince,
                olderSettings);
    }

    DeploymentPlanView plan(Place place, Versions.Version version, String requester) {
        Optional<String> reason = version.recipe().isEmpty() ? Optional.of("it has no deployment in its pipeline file")
                : planner.reasonAgainst(place, version);
        if (reason.isPresent()) {
            return new DeploymentPlanView(version.number(), List.of(), reason, List.of(), List.of(), List.of());
        }
        DeploymentState asked = new DeploymentState(0, version.number(), version.line(), version.order(),
                Kind.PROMOTION, false, DeploymentStatus.WAITING,
                List.<HostState>of(), DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.NONE, Optional.empty(),
                null, null);
        return new DeploymentPlanView(version.number(),
                movements(planner.plan(asked, place, place.liveSide(), version)), Optional.empty(),
                cautions(place, version, Kind.PROMOTION),
                GateViews.criteria(places.prospect(place, version, requester).verdict()),
                version.route().onward(place.environment()));
    }

    /** What somebody who deploys it there goes past. */
    List<String> cautions(Place place, Versions.Version version, Kind kind) {
        return Cautions.of(kind, place.component() + " in " + place.environment(), inLine(version),
                places.live(place).map(PlaceViews::inLine),
                sources.holds().held(place).map(hold -> "by " + hold.by() + ": “" + hold.reason() + "”"));
    }

    private static Cautions.InLine inLine(Versions.Version version) {
        return new Cautions.InLine(version.number(), version.line(), version.order());
    }

    static List<MovementView> movements(DeploymentState state) {
        Course course = state.course();
        return java.util.stream.IntStream.range(0, course.plan().size())
                .mapToObj(at -> movement(course.plan().get(at), Word.of(Standing.of(state, at)))).toList();
    }

    private static MovementView movement(Movement movement, String state) {
        return new MovementView(Word.of(movement.what()), movement.hosts(),
                movement.length().map(java.time.Duration::toSeconds),
                movement.share(), movement.name(), state);
    }
}
