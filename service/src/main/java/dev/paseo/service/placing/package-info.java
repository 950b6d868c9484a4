/** Giving a component hosts: what is free, and the environments file that would be loaded. */
@NullMarked
package dev.paseo.service.placing;

import org.jspecify.annotations.NullMarked;
