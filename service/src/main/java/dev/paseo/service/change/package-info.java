/** What every change is done with: one transaction, the moment, the trail, those who look. */
@NullMarked
package dev.paseo.service.change;

import org.jspecify.annotations.NullMarked;
