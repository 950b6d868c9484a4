/** What happened to what is live: as a list, as lanes over time, and what was otherwise at another moment. */
@NullMarked
package dev.paseo.service.history;

import org.jspecify.annotations.NullMarked;
