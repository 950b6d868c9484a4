/** The environments file: environments, their places and their rules. */
@NullMarked
package dev.paseo.language.environment;

import org.jspecify.annotations.NullMarked;
