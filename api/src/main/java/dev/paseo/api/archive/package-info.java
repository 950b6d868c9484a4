/** Archives that go between service and agents. */
@NullMarked
package dev.paseo.api.archive;

import org.jspecify.annotations.NullMarked;
