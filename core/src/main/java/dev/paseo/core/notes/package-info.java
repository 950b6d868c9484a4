/** Notes for an announcement of what is new. */
@NullMarked
package dev.paseo.core.notes;

import org.jspecify.annotations.NullMarked;
