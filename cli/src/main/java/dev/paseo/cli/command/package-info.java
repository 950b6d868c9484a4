/** One class per command. */
@NullMarked
package dev.paseo.cli.command;

import org.jspecify.annotations.NullMarked;
