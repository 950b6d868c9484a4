/** Steps as processes that outlive the agent. */
@NullMarked
package dev.paseo.agent.process;

import org.jspecify.annotations.NullMarked;
