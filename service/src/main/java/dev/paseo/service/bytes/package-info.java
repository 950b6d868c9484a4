/** The byte store: files named by their SHA-256. */
@NullMarked
package dev.paseo.service.bytes;

import org.jspecify.annotations.NullMarked;
