package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.service.bytes.ByteStore;
import java.io.OutputStream;
import java.util.Optional;
import java.util.Set;

/** Whoever a piece of work belongs to: runs or deployments. */
public interface WorkOwner {

    Set<Assignment.Kind> kinds();

    /** Locks what the work belongs to, in the transaction under way, before the work itself is changed. */
    Held lock(Work work);

    /** What the work belongs to, locked until the transaction ends. */
    interface Held {

        /** An agent takes it; false where it is no longer wanted. */
        boolean taken(String agent);

        /** It ended. */
        void ended(Lease.Outcome outcome, String reason, boolean touched);
    }

    /** What the agent is to do; the lease's number, token and length are filled in by the caller. */
    Assignment assignment(Work work);

    /** Whether the work needs the bytes of this digest. */
    boolean reaches(Work work, String digest);

    /** What a stage reads and leaves beside its steps; empty for other work. */
    StageFiles files();

    /** The files of stages. */
    interface StageFiles {

        /** Writes the files of the work's commit as a tar archive. */
        void source(Work work, OutputStream out);

        /** A file has arrived under the name of an artifact. */
        void output(Work work, String name, String fileName, ByteStore.StoredBytes kept);

        /** The archive for the stages after it has arrived. */
        void files(Work work, ByteStore.StoredBytes kept);

        /** An archive of report files of this kind has arrived; refused where one cannot be read. */
        void report(Work work, String kind, ByteStore.StoredBytes kept);

        /** What was kept under this key, or, where nothing was, the newest under another. */
        Optional<Reused> reused(Work work, String key);

        /** Folders to be kept under this key. */
        void reuse(Work work, String key, ByteStore.StoredBytes kept);
    }

    /**
     * An archive of folders from an earlier run.
     *
     * @param exact whether it was kept under the very key
     */
    record Reused(String digest, long size, boolean exact, String run) {}
}
