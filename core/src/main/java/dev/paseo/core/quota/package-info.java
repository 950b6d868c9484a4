/** How much a component may keep. */
@NullMarked
package dev.paseo.core.quota;

import org.jspecify.annotations.NullMarked;
