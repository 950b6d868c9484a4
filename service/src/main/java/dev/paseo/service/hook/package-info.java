/** Hooks: pushes that a git server tells, and what is known of each repository. */
@org.jspecify.annotations.NullMarked
package dev.paseo.service.hook;
