/** Agents: enrolment, the work that is offered to them, and their leases. */
@NullMarked
package dev.paseo.service.agent;

import org.jspecify.annotations.NullMarked;
