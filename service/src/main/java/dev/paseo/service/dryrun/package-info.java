/** What other rules would have done to what went through gates lately. */
@NullMarked
package dev.paseo.service.dryrun;

import org.jspecify.annotations.NullMarked;
