/** Versions of several components that are promoted as one. */
@NullMarked
package dev.paseo.service.set;

import org.jspecify.annotations.NullMarked;
