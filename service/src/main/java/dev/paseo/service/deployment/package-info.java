/** Places and deployments: the shell around the deciders. */
@NullMarked
package dev.paseo.service.deployment;

import org.jspecify.annotations.NullMarked;
