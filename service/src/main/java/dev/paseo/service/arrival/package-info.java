/** Versions that were built elsewhere: uploads, and stores that are watched. */
@NullMarked
package dev.paseo.service.arrival;

import org.jspecify.annotations.NullMarked;
