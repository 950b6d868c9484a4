/** The whole system, driven as people drive it. */
@NullMarked
package dev.paseo.e2e;

import org.jspecify.annotations.NullMarked;
