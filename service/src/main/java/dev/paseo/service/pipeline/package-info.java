/** Pipeline files as they are kept: of each commit, with the pieces that they were put together from. */
@NullMarked
package dev.paseo.service.pipeline;

import org.jspecify.annotations.NullMarked;
