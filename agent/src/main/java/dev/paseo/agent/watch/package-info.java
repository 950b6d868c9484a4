/** Keeping an eye on what is live on the agent's hosts. */
@NullMarked
package dev.paseo.agent.watch;

import org.jspecify.annotations.NullMarked;
