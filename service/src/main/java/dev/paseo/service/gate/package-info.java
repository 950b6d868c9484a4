/** What a gate is judged on. */
@NullMarked
package dev.paseo.service.gate;

import org.jspecify.annotations.NullMarked;
