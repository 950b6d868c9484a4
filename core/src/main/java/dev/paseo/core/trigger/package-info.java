/** What a push starts, and, where it starts nothing, why. */
@NullMarked
package dev.paseo.core.trigger;

import org.jspecify.annotations.NullMarked;
