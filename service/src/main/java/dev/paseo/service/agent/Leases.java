package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;

/** Fills a lease into an assignment. */
final class Leases {

    private Leases() {}

    static Assignment complete(Assignment plain, Work work, String token, int seconds) {
        return new Assignment(work.id(), work.fence(), token, seconds, plain.kind(), plain.variables(), plain.secrets(),
                plain.steps(), plain.stage(), plain.bundle(), plain.artifacts(), plain.checks(), plain.place(),
                work.untrusted());
    }
}
