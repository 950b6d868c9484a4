/** Reading YAML with the position of everything, and telling all that is wrong at once. */
@NullMarked
package dev.paseo.language;

import org.jspecify.annotations.NullMarked;
