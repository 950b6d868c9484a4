package dev.paseo.service.run;

import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A run as it is recorded. */
public record Run(long id, long componentId, String component, long number, long lineId, String commitId, String branch,
        boolean trusted, long pipelineFileId, long causeId, String versionNumber, boolean versionSealed,
        @Nullable String upTo, String commitSummary, String commitAuthor, @Nullable String bundle,
        @Nullable Long arrivedVersionId, String answers, RunStatus status, String state, int format, long revision,
        @Nullable String reason, Instant createdAt, @Nullable Instant startedAt, @Nullable Instant endedAt) {}
