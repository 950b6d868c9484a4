/**
 * One component in one environment: what is live there, what its hosts have, and what becomes of the deployments that
 * were requested.
 */
@NullMarked
package dev.paseo.service.place;

import org.jspecify.annotations.NullMarked;
