/** Texts: shortened, and their digests. */
@NullMarked
package dev.paseo.core.text;

import org.jspecify.annotations.NullMarked;
