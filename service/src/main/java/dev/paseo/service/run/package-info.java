/** Runs: started, carried on, logged. */
@NullMarked
package dev.paseo.service.run;

import org.jspecify.annotations.NullMarked;
