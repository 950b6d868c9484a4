/** Pictures that belong to what people say. */
@NullMarked
package dev.paseo.service.picture;

import org.jspecify.annotations.NullMarked;
