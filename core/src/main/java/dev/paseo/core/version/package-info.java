/** Version numbers: patterns, the scope in which a serial counts, and the lines of branches. */
@NullMarked
package dev.paseo.core.version;

import org.jspecify.annotations.NullMarked;
