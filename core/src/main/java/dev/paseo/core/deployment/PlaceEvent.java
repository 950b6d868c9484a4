package dev.paseo.core.deployment;

import dev.paseo.core.gate.Verdict;
import java.util.List;
import java.util.Map;

/** What can happen at a place. */
public sealed interface PlaceEvent {

    record Requested(DeploymentState deployment) implements PlaceEvent {}

    /** The gates of all deployments that have not begun, judged at this moment. Only this starts a deployment. */
    record GatesJudged(Map<Long, Verdict> verdicts) implements PlaceEvent {}

    /** @param host empty for what is done once for the whole place */
    record HostReported(long deployment, String host, HostTask task, HostOutcome outcome) implements PlaceEvent {}

    record CancelAsked(long deployment, String by) implements PlaceEvent {}

    /** A pause may be over. */
    record TimePassed() implements PlaceEvent {}

    /** A person says whether it goes on where the plan asks. */
    record Answered(long deployment, String by, boolean yes) implements PlaceEvent {}

    /** What came of the condition over facts that the plan has reached, and the sentence that says why. */
    record FactsJudged(long deployment, boolean hold, String sentence) implements PlaceEvent {}

    /** The set that it belongs to goes back: what waits is withdrawn, what is under way or live is undone. */
    record GoesBack(long deployment, String why) implements PlaceEvent {}

    /** Nothing is to be there any more: what waits is withdrawn, what is live is removed. */
    record RemovalAsked(String why) implements PlaceEvent {}

    /**
     * It is live already, on the day that Paseo is brought in.
     *
     * @param line  the line of the version
     * @param order the version's position in its line
     * @param hosts all hosts of the place; those of the first side that is named have it
     */
    record Recorded(long deployment, String version, long line, long order,
            List<Plan.Host> hosts) implements PlaceEvent {}

    /** Nobody knew what the host has; what is on it is what this deployment gives. */
    record Found(String host, long deployment) implements PlaceEvent {}

    /**
     * A host goes into maintenance.
     *
     * @param untaken whether its agent has not taken what is to be installed on it
     */
    record HostAway(String host, String why, boolean untaken) implements PlaceEvent {}

    /** Hosts are brought to what is live again, as it was deployed: put right, late, or new. */
    record TendAsked(List<String> hosts) implements PlaceEvent {}
}
