/** Refusals, as problem details (RFC 9457). */
@NullMarked
package dev.paseo.service.problem;

import org.jspecify.annotations.NullMarked;
