/** What somebody may have meant by a text. */
@NullMarked
package dev.paseo.core.find;

import org.jspecify.annotations.NullMarked;
