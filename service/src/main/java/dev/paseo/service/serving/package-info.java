/** What is true of the service as a whole: its version, its sizes, and whether its mails go out. */
@NullMarked
package dev.paseo.service.serving;

import org.jspecify.annotations.NullMarked;
