package dev.paseo.cli.command;

import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.function.Consumer;

/** Files that are there whole and good, or not at all. */
final class WholeFile {

    private WholeFile() {}

    /** Writes what a file gets. */
    interface Writing {
        void to(OutputStream out) throws IOException;
    }

    /**
     * Writes a file beside where it will be, and puts it there once it is whole.
     *
     * @param check throws where what was written should not be there
     */
    static void write(Path file, Writing writing, Consumer<Path> check) {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try {
            try (OutputStream out = Files.newOutputStream(part)) {
                writing.to(out);
            }
            check.accept(part);
            Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.REFUSED, file + " cannot be written: " + failed.getMessage());
        } finally {
            gone(part);
        }
    }

    private static void gone(Path part) {
        try {
            Files.deleteIfExists(part);
        } catch (IOException stays) {
            // What else failed is told; a part that stays is overwritten the next time.
        }
    }
}
