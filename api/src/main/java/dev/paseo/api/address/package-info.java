/** Which addresses of the internet protocol may be asked. */
@NullMarked
package dev.paseo.api.address;

import org.jspecify.annotations.NullMarked;
