/** Pipeline files changed from here: their conditions tried over runs that were, tried as a run, committed. */
@NullMarked
package dev.paseo.service.edit;

import org.jspecify.annotations.NullMarked;
