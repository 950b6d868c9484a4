/** Lists over all components: runs and versions, the newest first, by what is asked of them. */
@NullMarked
package dev.paseo.service.listing;

import org.jspecify.annotations.NullMarked;
