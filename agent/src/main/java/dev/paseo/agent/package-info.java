/** The agent: takes work from the service and carries it out in processes of the operating system. */
@NullMarked
package dev.paseo.agent;

import org.jspecify.annotations.NullMarked;
