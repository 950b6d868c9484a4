/** What the operator sets. */
@NullMarked
package dev.paseo.service.settings;

import org.jspecify.annotations.NullMarked;
