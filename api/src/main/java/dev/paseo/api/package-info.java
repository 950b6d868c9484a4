/** What service, client and agent say to each other. */
@NullMarked
package dev.paseo.api;

import org.jspecify.annotations.NullMarked;
