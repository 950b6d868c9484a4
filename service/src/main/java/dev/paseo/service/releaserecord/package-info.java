/** Release records: all of a deployment, a set or a period in one document; and notes of what is new. */
@NullMarked
package dev.paseo.service.releaserecord;

import org.jspecify.annotations.NullMarked;
