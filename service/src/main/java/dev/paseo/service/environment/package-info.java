/** Environments, places, their settings and their hosts. */
@NullMarked
package dev.paseo.service.environment;

import org.jspecify.annotations.NullMarked;
