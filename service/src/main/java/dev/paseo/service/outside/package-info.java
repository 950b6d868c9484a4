/** Others elsewhere whom a gate asks, and their answers. */
@NullMarked
package dev.paseo.service.outside;

import org.jspecify.annotations.NullMarked;
