/** The work of a run's stages, as agents are given it, and what they leave. */
@org.jspecify.annotations.NullMarked
package dev.paseo.service.stage;
