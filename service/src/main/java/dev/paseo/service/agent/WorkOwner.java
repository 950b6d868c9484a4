package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.service.bytes.ByteStore;
import java.io.OutputStream;
import java.util.Set;

/** Whoever a piece of work belongs to: runs or deployments. */
public interface WorkOwner {

    Set<Assignment.Kind> kinds();

    /** Locks what the work belongs to, in the transaction under way, before the work itself is changed. */
    void lock(Work work);

    /** An agent takes it; false where it is no longer wanted. In the transaction, under the lock. */
    boolean taken(Work work, String agent);

    /** It ended. In the transaction, under the lock. */
    void ended(Work work, Lease.Outcome outcome, String reason, boolean touched);

    /** What the agent is to do; the lease's number, token and length are filled in by the caller. */
    Assignment assignment(Work work);

    /** Writes the files of the work's commit as a tar archive. */
    void source(Work work, OutputStream out);

    /** A file has arrived under the name of an artifact. */
    void output(Work work, String name, String fileName, ByteStore.Kept kept);
}
