/** Where a version comes from and where it went, stated and signed; and what a file is, by its digest. */
@NullMarked
package dev.paseo.service.origin;

import org.jspecify.annotations.NullMarked;
