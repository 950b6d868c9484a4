/** Secrets, encrypted, with revisions. */
@NullMarked
package dev.paseo.service.secret;

import org.jspecify.annotations.NullMarked;
