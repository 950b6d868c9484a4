/** Talking to the service: work, leases, logs, bytes. */
@NullMarked
package dev.paseo.agent.lease;

import org.jspecify.annotations.NullMarked;
