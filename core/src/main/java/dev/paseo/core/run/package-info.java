/** Runs: which stage may start, what a stage's end means, and when a run is over. */
@NullMarked
package dev.paseo.core.run;

import org.jspecify.annotations.NullMarked;
