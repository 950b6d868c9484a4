/** Pieces: named parts of pipeline files that other files are like, with what is given to them. */
@NullMarked
package dev.paseo.language.piece;

import org.jspecify.annotations.NullMarked;
