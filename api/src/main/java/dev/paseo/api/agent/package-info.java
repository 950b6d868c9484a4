/** The agents' protocol, version 1: see docs/reference/agent-protocol.md. Unknown fields are ignored on both sides. */
@NullMarked
package dev.paseo.api.agent;

import org.jspecify.annotations.NullMarked;
