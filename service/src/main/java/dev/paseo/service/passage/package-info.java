/** Passages: versions' stays in environments, and the gates onward that end them. */
@NullMarked
package dev.paseo.service.passage;

import org.jspecify.annotations.NullMarked;
