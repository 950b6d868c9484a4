/** The one clock of all replicas. */
@NullMarked
package dev.paseo.service.clock;

import org.jspecify.annotations.NullMarked;
