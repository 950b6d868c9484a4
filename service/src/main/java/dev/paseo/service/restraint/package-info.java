/** Holds of places, closures of environments, blocks of versions. */
@NullMarked
package dev.paseo.service.restraint;

import org.jspecify.annotations.NullMarked;
