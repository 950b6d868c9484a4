/** What others keep so that the trail can be held against it: heads, and the service's keys. */
@NullMarked
package dev.paseo.service.witness;

import org.jspecify.annotations.NullMarked;
