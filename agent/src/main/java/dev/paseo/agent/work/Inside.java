package dev.paseo.agent.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;

/** Places below a folder, reached through real folders alone: no link that somebody put there leads a write outside. */
final class Inside {

    private Inside() {}

    /** Where a file of this name goes; its folders are made, and a file or a link that is there already is removed. */
    static Path file(Path root, String name) throws IOException {
        Path target = below(root, name);
        if (target.equals(root)) {
            throw new CannotGoOn("“" + name + "” is not the name of a file");
        }
        folders(root, target.getParent());
        if (Files.isDirectory(target, LinkOption.NOFOLLOW_LINKS)) {
            throw new CannotGoOn(name + " is a folder already, and cannot be a file");
        }
        Files.deleteIfExists(target);
        return target;
    }

    static void folder(Path root, String name) throws IOException {
        folders(root, below(root, name));
    }

    private static Path below(Path root, String name) {
        Path target = root.resolve(name).normalize();
        if (!target.startsWith(root)) {
            throw new CannotGoOn(name + " lies outside the workspace");
        }
        return target;
    }

    private static void folders(Path root, Path folder) throws IOException {
        Path reached = root;
        for (Path part : root.relativize(folder)) {
            if (part.toString().isEmpty()) {
                continue;
            }
            reached = reached.resolve(part);
            if (Files.isSymbolicLink(reached)) {
                throw new CannotGoOn(root.relativize(folder) + " leads through the link " + root.relativize(reached)
                        + ": nothing is written through links");
            }
            if (!Files.isDirectory(reached, LinkOption.NOFOLLOW_LINKS)) {
                Files.createDirectory(reached);
            }
        }
    }
}
