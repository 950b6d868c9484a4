/** Causes as rows: what led to what. */
@NullMarked
package dev.paseo.service.cause;

import org.jspecify.annotations.NullMarked;
