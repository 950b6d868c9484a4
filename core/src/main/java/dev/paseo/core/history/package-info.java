/** What happened to what is live, in one order, and what was otherwise at another moment. */
@NullMarked
package dev.paseo.core.history;

import org.jspecify.annotations.NullMarked;
