/** The service: REST, live events, persistence, and the shell around the engine's decisions. */
@NullMarked
package dev.paseo.service;

import org.jspecify.annotations.NullMarked;
