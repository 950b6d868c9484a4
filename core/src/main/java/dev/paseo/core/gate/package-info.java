/** Gates: criteria, each judged with a sentence that says why, and the exact subject that is approved. */
@NullMarked
package dev.paseo.core.gate;

import org.jspecify.annotations.NullMarked;
