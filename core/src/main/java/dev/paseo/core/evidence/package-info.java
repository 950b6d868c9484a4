/** Evidence: what reports say about a version, and what that means beside earlier ones. */
@NullMarked
package dev.paseo.core.evidence;

import org.jspecify.annotations.NullMarked;
