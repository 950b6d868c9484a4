package dev.paseo.agent.process;

import static org.junit.jupiter.api.Assertions.assertFalse;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SpoolTest {

    /** Work that was stopped at once may write for a moment longer: before, its spool could not be deleted then. */
    @Test
    void itIsDeletedAlsoWhileSomethingStillWrites(@TempDir Path root) throws Exception {
        Spool spool = Spool.open(root, 7);
        spool.keepLease("token");
        CountDownLatch writes = new CountDownLatch(1);
        Thread writer = Thread.ofPlatform().start(() -> {
            long until = System.nanoTime() + 300_000_000;
            try {
                for (int at = 0; System.nanoTime() < until; at++) {
                    Files.writeString(spool.words(false).resolveSibling("late-" + at), "x");
                    writes.countDown();
                }
            } catch (IOException gone) {
                // The folder is gone: that is what is wanted.
            }
        });
        writes.await();
        spool.delete();
        writer.join();
        assertFalse(Files.exists(spool.words(false).getParent()));
    }
}
