/** Who decides in whose place, for a time. */
@NullMarked
package dev.paseo.service.deputy;

import org.jspecify.annotations.NullMarked;
