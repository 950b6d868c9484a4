/** Checks a pipeline file against what is around it. */
@NullMarked
package dev.paseo.language.check;

import org.jspecify.annotations.NullMarked;
