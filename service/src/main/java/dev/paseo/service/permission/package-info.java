/** Whether somebody may, or a refusal. */
@NullMarked
package dev.paseo.service.permission;

import org.jspecify.annotations.NullMarked;
