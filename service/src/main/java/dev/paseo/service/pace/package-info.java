/** How fast and how safely versions move. */
@NullMarked
package dev.paseo.service.pace;

import org.jspecify.annotations.NullMarked;
