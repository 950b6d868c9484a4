/** What somebody who may not do it oneself asks of those who may. */
@NullMarked
package dev.paseo.service.asking;

import org.jspecify.annotations.NullMarked;
