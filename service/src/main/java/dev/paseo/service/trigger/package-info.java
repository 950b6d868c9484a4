/** Pushes: heads compared and set, and what they start. */
@NullMarked
package dev.paseo.service.trigger;

import org.jspecify.annotations.NullMarked;
