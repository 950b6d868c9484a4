/** Conditions in CEL, checked when their file is. */
@NullMarked
package dev.paseo.language.condition;

import org.jspecify.annotations.NullMarked;
