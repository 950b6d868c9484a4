/** The pipeline file: what it says, and the checks that need nothing but the file. */
@NullMarked
package dev.paseo.language.file;

import org.jspecify.annotations.NullMarked;
