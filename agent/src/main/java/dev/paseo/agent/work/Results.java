package dev.paseo.agent.work;

import dev.paseo.agent.log.Masker;
import dev.paseo.agent.process.Spool;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import java.nio.file.Files;

/** What comes of a piece of work, in words without secrets. */
record Results(Assignment assignment, Spool spool) {

    Lease.Result ended(Lease.Outcome outcome, String reason) {
        String shown = new Masker(assignment.secrets().values()).mask(reason);
        return new Lease.Result(assignment.fence(), outcome, shown, touched());
    }

    private boolean touched() {
        return assignment.steps().stream()
                .anyMatch(step -> Files.exists(spool.step(step.position(), 1).resolve("started")));
    }
}
