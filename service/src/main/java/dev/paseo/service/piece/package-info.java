/** Pieces of pipeline files: who uses them, and what a new version of one would do to each. */
@NullMarked
package dev.paseo.service.piece;

import org.jspecify.annotations.NullMarked;
