package dev.paseo.agent.process;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A disk of so many megabytes; only root can make one. */
public final class SmallDisk implements AutoCloseable {

    private final Path folder;

    public SmallDisk(Path folder, int megabytes) throws IOException, InterruptedException {
        this.folder = Files.createDirectories(folder);
        assumeTrue(run("mount", "-t", "tmpfs", "-o", "size=" + megabytes + "m", "tmpfs", folder.toString()),
                "this user cannot make a disk");
    }

    public Path folder() {
        return folder;
    }

    private static boolean run(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start().waitFor() == 0;
    }

    @Override
    public void close() throws IOException, InterruptedException {
        run("umount", "-l", folder.toString());
    }
}
