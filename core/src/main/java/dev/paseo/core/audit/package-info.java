/** The tree over the audit trail (RFC 9162), and its verification. */
@NullMarked
package dev.paseo.core.audit;

import org.jspecify.annotations.NullMarked;
