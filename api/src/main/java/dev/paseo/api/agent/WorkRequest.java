package dev.paseo.api.agent;

import java.util.List;

/**
 * An agent asks for work.
 *
 * @param held the work that it has; what the service leased to it beyond this never arrived, and is sent again
 */
public record WorkRequest(List<Long> held) {}
