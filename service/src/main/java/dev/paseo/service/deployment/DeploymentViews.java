package dev.paseo.service.deployment;

import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
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
            List<Passages.Walked> walk, List<String> route, Optional<Long> run, Optional<String> url,
            Optional<String> behindUrl,
            Optional<String> newer, int checks, boolean undoes, List<PlaceViews.MovementView> plan,
            Optional<Instant> until, int share, boolean asksToGoOn,
            Optional<String> emergency, List<String> cautions, String zone) {}

    private final DeploymentSummaries summaries;
    private final DeploymentGates gates;
    private final Destinations destinations;
    private final DeploymentPast past;
    private final DeploymentComparisons comparisons;

    DeploymentViews(DeploymentSummaries summaries, DeploymentGates gates, Destinations destinations,
            DeploymentPast past, DeploymentComparisons comparisons) {
        this.summaries = summaries;
        this.gates = gates;
        this.destinations = destinations;
        this.past = past;
        this.comparisons = comparisons;
    }

    public DeploymentView whole(Deployment row, String reader) {
        DeploymentGates.AtItsGate gate = gates.of(row, reader);
        Versions.Version version = gate.version();
        Destinations.Destination to = destinations.of(row, gate.place(), version);
        DeploymentState state = to.state();
        DeploymentPast.Happened happened = past.of(row);
        return new DeploymentView(summaries.of(row), gate.criteria(), gate.subject(), gate.mayNot(),
                gate.mayNotTick(), gate.commentRequired(), gate.decisions(), gate.checklists(), to.hosts(),
                happened.tasks(), happened.causes(), comparisons.of(row, gate.place(), version), happened.walk(),
                version.route().environments(), version.runNumber(), to.url(), to.behindUrl(), to.newer(),
                version.recipe().map(recipe -> recipe.eachHost().size()).orElse(0),
                state.onFailure() == DeploymentState.OnFailure.UNDO, PlaceViews.movements(state),
                state.course().until(), state.course().share(),
                state.asks(), Optional.ofNullable(row.emergencyReason()), to.cautions(), to.zone());
    }
}
