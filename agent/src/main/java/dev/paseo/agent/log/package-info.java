/** Output becomes log lines: split, masked, shipped. */
@NullMarked
package dev.paseo.agent.log;

import org.jspecify.annotations.NullMarked;
