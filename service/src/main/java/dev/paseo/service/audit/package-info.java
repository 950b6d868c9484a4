/** The audit trail: entries, their numbering in a tree, and its verification. */
@NullMarked
package dev.paseo.service.audit;

import org.jspecify.annotations.NullMarked;
