/** Conditions of pipeline files, tried over runs that were. */
@NullMarked
package dev.paseo.service.trial;

import org.jspecify.annotations.NullMarked;
