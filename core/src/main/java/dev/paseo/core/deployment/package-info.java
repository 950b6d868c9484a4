/** Places and their deployments: one at a time, host by host, with a way back. */
@NullMarked
package dev.paseo.core.deployment;

import org.jspecify.annotations.NullMarked;
