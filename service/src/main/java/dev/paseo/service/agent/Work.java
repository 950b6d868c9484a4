package dev.paseo.service.agent;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A piece of work: an attempt of a stage, or a task of a deployment on a host.
 *
 * @param wants     JSON: what its agent must offer
 * @param untrusted it comes of a branch that is not trusted, or is of a preview
 * @param stage   the name of the stage, where it is one, with its variant and attempt
 */
public record Work(
        long id, String kind, @Nullable Long runId, @Nullable Long stageId, @Nullable Long deploymentId,
        @Nullable Long hostId,
        String status, @Nullable Long agentId, long fence, @Nullable Instant leaseUntil, String stop, String wants,
        boolean untrusted, @Nullable String stage,
        @Nullable String variant, @Nullable Integer attempt) {}
