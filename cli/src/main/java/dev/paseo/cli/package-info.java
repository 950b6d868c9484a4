/** The command-line client. */
@NullMarked
package dev.paseo.cli;

import org.jspecify.annotations.NullMarked;
