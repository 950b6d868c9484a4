/** What was and will be in an environment: hours, closed periods, deployments; also as a feed of RFC 5545. */
@NullMarked
package dev.paseo.service.calendar;

import org.jspecify.annotations.NullMarked;
