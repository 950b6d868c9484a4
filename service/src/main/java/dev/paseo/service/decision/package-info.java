/** What people say about deployments. */
@NullMarked
package dev.paseo.service.decision;

import org.jspecify.annotations.NullMarked;
