package dev.paseo.api.agent;

import java.util.List;
import java.util.Optional;

/**
 * An agent asks for work.
 *
 * @param held the work that it has; what the service leased to it beyond this never arrived, and is sent again
 * @param walls  which walls its work has, in words
 * @param walled whether they hold work of branches that are not trusted
 */
public record WorkRequest(List<Long> held, Optional<String> walls, Optional<Boolean> walled) {}
