/** What needs somebody: decisions, checklists, reviews, grants that are missing. */
@NullMarked
package dev.paseo.service.waiting;

import org.jspecify.annotations.NullMarked;
