/** What a registration would find, before it is one. */
@NullMarked
package dev.paseo.service.registration;

import org.jspecify.annotations.NullMarked;
