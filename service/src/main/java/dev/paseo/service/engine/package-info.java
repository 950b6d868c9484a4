/** What a transaction leaves to be done or told afterwards: effects, live events, and the loops that see to them. */
@NullMarked
package dev.paseo.service.engine;

import org.jspecify.annotations.NullMarked;
