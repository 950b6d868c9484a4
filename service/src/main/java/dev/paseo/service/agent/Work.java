package dev.paseo.service.agent;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A piece of work: an attempt of a stage, or a task of a deployment on a host. */
public record Work(
        long id, String kind, @Nullable Long runId, @Nullable Long stageId, @Nullable Long deploymentId, @Nullable Long hostId,
        String status, @Nullable Long agentId, long fence, @Nullable Instant leaseUntil, String stop) {}
