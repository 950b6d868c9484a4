package dev.paseo.core.history;

import dev.paseo.core.deployment.DeploymentStatus;
import java.util.Optional;

/**
 * Something that happened.
 *
 * @param component   none: to a whole environment
 * @param status      how a deployment ended that did not go live
 * @param by          who asked for it or did it; none: nobody, it came by itself
 * @param host        of which it is
 * @param reason      why, as was said then
 * @param emergency   whether it went past its gate
 */
public record Happening(Mark mark, What what, Optional<String> component, String environment, Optional<String> version,
        Optional<Long> deployment, Optional<DeploymentStatus> status, Optional<String> by, Optional<String> host,
        Optional<String> reason, boolean emergency) {}
