/**
 * Takes components, places, hosts, agents, environments and preview templates out of use, and brings them back. Their
 * history stays.
 */
@NullMarked
package dev.paseo.service.retirement;

import org.jspecify.annotations.NullMarked;
