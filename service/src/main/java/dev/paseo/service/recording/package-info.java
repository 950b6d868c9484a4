/** What was live before Paseo, written down on the day that it is brought in. */
@NullMarked
package dev.paseo.service.recording;

import org.jspecify.annotations.NullMarked;
