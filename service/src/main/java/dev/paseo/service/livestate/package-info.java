/** What is live, as the audit trail states it and guards it. */
@NullMarked
package dev.paseo.service.livestate;

import org.jspecify.annotations.NullMarked;
