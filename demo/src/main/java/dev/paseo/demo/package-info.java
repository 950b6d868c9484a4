/** Stand-ins for what a park would have: hosts with a supervisor. */
@NullMarked
package dev.paseo.demo;

import org.jspecify.annotations.NullMarked;
