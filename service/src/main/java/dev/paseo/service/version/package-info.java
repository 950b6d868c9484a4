/** Sealed versions. */
@NullMarked
package dev.paseo.service.version;

import org.jspecify.annotations.NullMarked;
