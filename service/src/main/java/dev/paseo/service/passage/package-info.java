/** Passages: versions' stays in environments, and the exit gates that end them. */
@NullMarked
package dev.paseo.service.passage;

import org.jspecify.annotations.NullMarked;
