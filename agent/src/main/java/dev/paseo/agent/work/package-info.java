/** Carrying out one piece of work, from its files to its result. */
@NullMarked
package dev.paseo.agent.work;

import org.jspecify.annotations.NullMarked;
