/** The chain of components: what starts what, and what one change led to across all of them. */
@NullMarked
package dev.paseo.service.chain;

import org.jspecify.annotations.NullMarked;
