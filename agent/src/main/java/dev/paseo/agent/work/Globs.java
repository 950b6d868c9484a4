package dev.paseo.agent.work;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** Finds files of a folder by patterns: {@code *} within a name, {@code **} across folders, none of them included. */
final class Globs {

    private Globs() {}

    private static List<PathMatcher> matchers(List<String> patterns) {
        List<PathMatcher> matchers = new ArrayList<>();
        for (String pattern : patterns) {
            // "a/**/b" stands for "a/b" as well, which Java's own patterns do not.
            List<String> forms = new ArrayList<>(List.of(pattern));
            if (pattern.startsWith("**/")) {
                forms.add(pattern.substring(3));
            }
            if (pattern.contains("/**/")) {
                forms.add(pattern.replace("/**/", "/"));
            }
            forms.forEach(form -> matchers.add(FileSystems.getDefault().getPathMatcher("glob:" + form)));
        }
        return matchers;
    }

    /** Regular files and links, relative to the folder, in order; a link is not followed. */
    static List<Path> find(Path folder, List<String> patterns) throws IOException {
        List<PathMatcher> matchers = matchers(patterns);
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(path -> !Files.isDirectory(path, java.nio.file.LinkOption.NOFOLLOW_LINKS)).map(folder::relativize)
                    .filter(path -> matchers.stream().anyMatch(matcher -> matcher.matches(path))).sorted().toList();
        }
    }
}
