/** Transactions that are repeated when they lose a race, and JSON in columns. */
@NullMarked
package dev.paseo.service.database;

import org.jspecify.annotations.NullMarked;
