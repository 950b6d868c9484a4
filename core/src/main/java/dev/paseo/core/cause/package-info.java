/** What led to a run or a deployment, back to a person or a push. */
@NullMarked
package dev.paseo.core.cause;

import org.jspecify.annotations.NullMarked;
