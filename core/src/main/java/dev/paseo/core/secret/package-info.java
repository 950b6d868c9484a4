/** Secrets, by their names alone. */
@NullMarked
package dev.paseo.core.secret;

import org.jspecify.annotations.NullMarked;
