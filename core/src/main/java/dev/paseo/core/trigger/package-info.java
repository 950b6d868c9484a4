/** What starts runs: events matched against the triggers in force, and, where nothing starts, why. */
@NullMarked
package dev.paseo.core.trigger;

import org.jspecify.annotations.NullMarked;
