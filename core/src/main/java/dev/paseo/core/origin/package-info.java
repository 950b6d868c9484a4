/** Statements about where a version comes from and where it went, signed: in-toto Statement 1 in DSSE envelopes. */
@NullMarked
package dev.paseo.core.origin;

import org.jspecify.annotations.NullMarked;
