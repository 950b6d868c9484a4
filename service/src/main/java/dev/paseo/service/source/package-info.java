/** Mirrors of git repositories. */
@NullMarked
package dev.paseo.service.source;

import org.jspecify.annotations.NullMarked;
