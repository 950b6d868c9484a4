/** Evidence that is added to versions after they were sealed. */
@NullMarked
package dev.paseo.service.addedevidence;

import org.jspecify.annotations.NullMarked;
