package dev.paseo.core.deployment;

import dev.paseo.core.gate.Verdict;
import java.util.Map;

/** What can happen at a place. */
public sealed interface PlaceEvent {

    record Requested(DeploymentState deployment) implements PlaceEvent {}

    /** The gates of all deployments that have not begun, judged at this moment. Only this starts a deployment. */
    record GatesJudged(Map<Long, Verdict> verdicts) implements PlaceEvent {}

    record HostReported(long deployment, String host, HostTask task, HostOutcome outcome) implements PlaceEvent {}

    record CancelAsked(long deployment, String by) implements PlaceEvent {}
}
