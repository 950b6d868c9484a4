/** Evidence: reports that runs leave, read as they arrive, and compared with those before. */
@NullMarked
package dev.paseo.service.evidence;

import org.jspecify.annotations.NullMarked;
