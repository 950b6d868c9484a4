/** Checks of what is deployed: requests, ports, numbers. */
@NullMarked
package dev.paseo.agent.check;

import org.jspecify.annotations.NullMarked;
