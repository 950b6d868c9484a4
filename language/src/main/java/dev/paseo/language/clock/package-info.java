/** Clocks of cron fields in time zones. */
@NullMarked
package dev.paseo.language.clock;

import org.jspecify.annotations.NullMarked;
