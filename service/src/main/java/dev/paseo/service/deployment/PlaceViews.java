package dev.paseo.service.deployment;

import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.Movement;
import dev.paseo.core.deployment.Standing;
import dev.paseo.core.text.Word;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
            Optional<Restraints.ClosedPeriod> closedPeriod, List<HostStandings.HereView> hosts,
            List<String> differing, Optional<String> rollback,
            Map<String, String> variables, long settingsRevision, String zone) {}

    private final Places places;
    private final Environments environments;
    private final Holds holds;
    private final HostStandings standings;
    private final WaysBack ways;

    PlaceViews(Places places, Environments environments, Holds holds, HostStandings standings, WaysBack ways) {
        this.places = places;
        this.environments = environments;
        this.holds = holds;
        this.standings = standings;
        this.ways = ways;
    }

    PlaceView view(Place place) {
        return new PlaceView(place.component(), place.environment(), place.url(), place.retired(),
                places.live(place).map(Versions.Version::number), place.liveDeployment(),
                place.liveSide(), holds.held(place), holds.closed(place.environmentId()),
                holds.period(place.environmentId()),
                standings.of(place), standings.differing(place),
                ways.target(place).map(Versions.Version::number),
                environments.settings(place.id(), place.settingsRevision()).variables(),
                place.settingsRevision(),
                environments.of(place).zone());
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
