/** Asking for deployments: what has to be there first, the row, the first plan, and what is told at once. */
@NullMarked
package dev.paseo.service.request;

import org.jspecify.annotations.NullMarked;
