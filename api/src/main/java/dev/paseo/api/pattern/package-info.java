/** Patterns of files. */
@NullMarked
package dev.paseo.api.pattern;

import org.jspecify.annotations.NullMarked;
