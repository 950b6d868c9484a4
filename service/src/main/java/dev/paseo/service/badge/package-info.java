/** Badges: how the newest run on a branch went, as a picture for a page elsewhere. */
@org.jspecify.annotations.NullMarked
package dev.paseo.service.badge;
