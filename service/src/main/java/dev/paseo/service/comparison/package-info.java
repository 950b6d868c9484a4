/** What differs between two versions as they are, or would be, deployed. */
@NullMarked
package dev.paseo.service.comparison;

import org.jspecify.annotations.NullMarked;
