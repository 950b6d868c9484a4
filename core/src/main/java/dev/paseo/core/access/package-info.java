/** Who may do what: roles as one table, and the question asked of it. */
@NullMarked
package dev.paseo.core.access;

import org.jspecify.annotations.NullMarked;
