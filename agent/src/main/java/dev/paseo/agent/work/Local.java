package dev.paseo.agent.work;

import dev.paseo.api.archive.TarReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.InvalidPathException;
import java.nio.file.NoSuchFileException;

/** Puts what failed on this machine into words for people. */
final class Local {

    private Local() {}

    /** @param doing what was being done, such as {@code fetching its files} */
    static String words(String doing, Throwable failed) {
        Throwable told = failed instanceof UncheckedIOException unchecked && unchecked.getCause() != null
                ? unchecked.getCause() : failed;
        String why = switch (told) {
            case FileSystemException full when has(full, "No space left on device") -> "the agent's disk is full";
            case IOException full when has(full, "No space left on device") -> "the agent's disk is full";
            case FileSystemException longer when has(longer,
                    "File name too long") -> "a name is longer than the agent's file system takes: "
                            + cut(String.valueOf(longer.getFile()));
            case TarReader.Unreadable archive -> "the archive " + cut(String.valueOf(archive.getMessage()));
            case NoSuchFileException gone -> cut(String.valueOf(gone.getFile()))
                    + " is not there, or its name is no UTF-8";
            case AccessDeniedException denied -> cut(String.valueOf(denied.getFile())) + " may not be read or written";
            case InvalidPathException name -> "a name cannot be one of a file here: " + cut(name.getInput());
            default -> cut(String.valueOf(told.getMessage() == null ? told : told.getMessage()));
        };
        return "while " + doing + ": " + why;
    }

    private static boolean has(IOException failed, String words) {
        return String.valueOf(failed.getMessage()).contains(words);
    }

    private static String cut(String text) {
        return text.length() > 300 ? text.substring(0, 300) + "…" : text;
    }
}
