/** What versions are made of, and which of them have a part. */
@NullMarked
package dev.paseo.service.part;

import org.jspecify.annotations.NullMarked;
