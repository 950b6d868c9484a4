/** Hosts: what is done on them, what they report, and when they are in maintenance. */
@NullMarked
package dev.paseo.service.host;

import org.jspecify.annotations.NullMarked;
