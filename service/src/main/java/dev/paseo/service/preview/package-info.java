/** Preview environments of branches. */
@NullMarked
package dev.paseo.service.preview;

import org.jspecify.annotations.NullMarked;
