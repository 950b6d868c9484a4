/** What the service may ask and tell beyond itself. */
@NullMarked
package dev.paseo.service.reach;

import org.jspecify.annotations.NullMarked;
