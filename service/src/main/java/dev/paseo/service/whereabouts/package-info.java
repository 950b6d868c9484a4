/** Which version of every component is live in every environment. */
@NullMarked
package dev.paseo.service.whereabouts;

import org.jspecify.annotations.NullMarked;
