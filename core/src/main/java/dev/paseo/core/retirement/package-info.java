/** Taking something out of use: what hinders it and what follows. */
@NullMarked
package dev.paseo.core.retirement;

import org.jspecify.annotations.NullMarked;
