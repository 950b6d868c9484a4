package dev.paseo.agent.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Finds the one file of a workspace that a pattern names. */
final class KeptFile {

    private KeptFile() {}

    /** The pattern matches no file or several, or leads out of the workspace. */
    static final class NotOne extends RuntimeException {
        NotOne(String message) {
            super(message);
        }
    }

    static Path find(Path workspace, String name, String pattern) throws IOException {
        Path root = workspace.toRealPath();
        if (pattern.startsWith("/") || List.of(pattern.split("/")).contains("..")) {
            throw new NotOne("keep " + name + ": " + pattern + " leads out of the workspace");
        }
        List<Path> found = Globs.find(root, List.of(pattern)).stream().map(root::resolve).filter(Files::isRegularFile)
                .limit(3).toList();
        if (found.isEmpty()) {
            throw new NotOne("keep " + name + ": " + pattern + " matches no file of the workspace");
        }
        if (found.size() > 1) {
            throw new NotOne("keep " + name + ": " + pattern + " matches more than one file, among them "
                    + root.relativize(found.get(0))
                    + " and " + root.relativize(found.get(1)));
        }
        if (!found.getFirst().toRealPath().startsWith(root)) {
            throw new NotOne("keep " + name + ": " + pattern + " is a link that leads out of the workspace");
        }
        return found.getFirst();
    }
}
