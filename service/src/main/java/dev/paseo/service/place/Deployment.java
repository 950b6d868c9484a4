package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A deployment as it is kept.
 *
 * @param version         the number of its version
 * @param state           all that deciding about it needs, as JSON
 * @param replacesId      what was live when it began
 * @param subject         digest of what exactly was approved
 * @param secretRevisions which value of each secret it gave, as JSON
 * @param emergencyReason why it goes past unmet criteria
 * @param promotionId     the promotion of a set that it belongs to
 */
public record Deployment(long id, long placeId, String component, String environment, long versionId,
        String version, Kind kind, DeploymentStatus status, String state,
        long revision,
        @Nullable Long replacesId, @Nullable String subject, long settingsRevision, String secretRevisions,
        @Nullable String requestedBy,
        long causeId, @Nullable String reason, Instant requestedAt, @Nullable Instant startedAt,
        @Nullable Instant liveAt,
        @Nullable Instant endedAt, @Nullable String emergencyReason, @Nullable Long promotionId) {

    /** As it is once it has been moved. */
    Deployment moved(DeploymentMapper.Move move) {
        return new Deployment(id, placeId, component, environment, versionId, version, kind, move.status(),
                move.state(), revision + 1,
                replacesId == null ? move.replaces() : replacesId, subject,
                settingsRevision, secretRevisions, requestedBy, causeId, move.reason(), requestedAt, move.startedAt(),
                move.liveAt(), move.endedAt(), emergencyReason, promotionId);
    }
}
