/** How much each component has kept, and that it is no more than it may. */
@NullMarked
package dev.paseo.service.quota;

import org.jspecify.annotations.NullMarked;
