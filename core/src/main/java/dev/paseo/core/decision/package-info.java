/** What a decision comes to: moved, with effects as data, or refused, with the reason. */
@NullMarked
package dev.paseo.core.decision;

import org.jspecify.annotations.NullMarked;
