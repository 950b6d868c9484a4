/** What was loosened, and what goes live under it within a day. */
@NullMarked
package dev.paseo.service.loosening;

import org.jspecify.annotations.NullMarked;
