/** Finding anything by how it is named. */
@NullMarked
package dev.paseo.service.find;

import org.jspecify.annotations.NullMarked;
