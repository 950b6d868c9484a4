/** Signatures of messages that come in and go out. */
@NullMarked
package dev.paseo.service.signature;

import org.jspecify.annotations.NullMarked;
