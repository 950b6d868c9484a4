/** Signatures of the service's key. */
@NullMarked
package dev.paseo.core.signature;

import org.jspecify.annotations.NullMarked;
