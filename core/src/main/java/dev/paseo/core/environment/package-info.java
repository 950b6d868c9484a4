/** Routes through environments, and passages: a version's stay in one of them. */
@NullMarked
package dev.paseo.core.environment;

import org.jspecify.annotations.NullMarked;
