/** Tables, times and words for people. */
@NullMarked
package dev.paseo.cli.output;

import org.jspecify.annotations.NullMarked;
