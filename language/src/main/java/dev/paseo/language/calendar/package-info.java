/** Calendars of RFC 5545. */
@NullMarked
package dev.paseo.language.calendar;

import org.jspecify.annotations.NullMarked;
