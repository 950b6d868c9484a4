/** Hosts without an agent, reached over SSH and SFTP. */
@NullMarked
package dev.paseo.agent.ssh;

import org.jspecify.annotations.NullMarked;
