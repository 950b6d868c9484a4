/** How fast and how safely versions move: where the time of each went, and sums of many. */
@NullMarked
package dev.paseo.core.pace;

import org.jspecify.annotations.NullMarked;
