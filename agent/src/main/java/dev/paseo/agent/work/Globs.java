package dev.paseo.agent.work;

import dev.paseo.api.pattern.Glob;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** Finds files of a folder by patterns. */
final class Globs {

    private Globs() {}

    /**
     * What was found.
     *
     * @param files   regular files and links, relative to the folder, in order; a link is not followed
     * @param leftOut pipes, sockets and devices, which cannot be kept
     */
    record Found(List<Path> files, List<Path> leftOut) {

        /** Says what was left out; empty where nothing was. */
        String words() {
            return leftOut.isEmpty() ? "" : "left out, for they are no files: "
                    + leftOut.stream().limit(MOST_NAMED).map(Path::toString).collect(Collectors.joining(", "))
                    + (leftOut.size() > MOST_NAMED ? " and " + (leftOut.size() - MOST_NAMED) + " more" : "") + "\n";
        }
    }

    private static final int MOST_NAMED = 10;

    static Found look(Path folder, List<String> patterns) throws IOException {
        List<Glob> globs = patterns.stream().map(Glob::new).toList();
        List<Path> files = new ArrayList<>();
        List<Path> leftOut = new ArrayList<>();
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path path, BasicFileAttributes attributes) {
                Path relative = folder.relativize(path);
                if (globs.stream().anyMatch(glob -> glob.matches(relative))) {
                    (attributes.isOther() ? leftOut : files).add(relative);
                }
                return FileVisitResult.CONTINUE;
            }
        });
        return new Found(files.stream().sorted().toList(), leftOut.stream().sorted().toList());
    }

    static List<Path> find(Path folder, List<String> patterns) throws IOException {
        return look(folder, patterns).files();
    }
}
