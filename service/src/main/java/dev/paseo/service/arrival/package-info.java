/** Versions that were built elsewhere: uploads, and stores that are observed. */
@NullMarked
package dev.paseo.service.arrival;

import org.jspecify.annotations.NullMarked;
