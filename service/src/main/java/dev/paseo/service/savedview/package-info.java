/** Views of the console that were kept under a name. */
@NullMarked
package dev.paseo.service.savedview;

import org.jspecify.annotations.NullMarked;
