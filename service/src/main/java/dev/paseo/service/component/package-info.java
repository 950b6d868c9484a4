/** Components, their branch rules and the pipeline files in force. */
@NullMarked
package dev.paseo.service.component;

import org.jspecify.annotations.NullMarked;
