package dev.paseo.service.source;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Makes commits in a bare repository, and understands what a repository says to them. */
final class NewCommit {

    private static final Pattern REMOTE = Pattern.compile("remote: (?:error: )?(.*\\S)\\s*");

    private NewCommit() {}

    /** One file changed on top of a commit; it is on no branch. */
    static String of(Path folder, String base, String path, String text, String message, Mirror.Author author) {
        try {
            Path file = Files.createTempFile("paseo-commit", ".txt");
            Path index = Files.createTempFile("paseo-commit", ".index");
            try {
                Files.delete(index);
                Files.writeString(file, text);
                Map<String, String> environment = Map.of("GIT_INDEX_FILE", index.toString(), "GIT_AUTHOR_NAME",
                        author.name(), "GIT_AUTHOR_EMAIL", author.address(),
                        "GIT_COMMITTER_NAME", author.name(), "GIT_COMMITTER_EMAIL", author.address());
                String blob = Git.text(folder, List.of("hash-object", "-w", "--no-filters", file.toString())).strip();
                Git.text(folder, List.of("read-tree", base), environment);
                Git.text(folder, List.of("update-index", "--add", "--cacheinfo", "100644," + blob + "," + path),
                        environment);
                String tree = Git.text(folder, List.of("write-tree"), environment).strip();
                return Git.text(folder, List.of("commit-tree", tree, "-p", base, "-m", message), environment).strip();
            } finally {
                Files.deleteIfExists(file);
                Files.deleteIfExists(index);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** What the repository itself said to a push; all of what git said where it said nothing. */
    static String remoteWords(String said) {
        String words = said.lines().flatMap(line -> REMOTE.matcher(line).results()).map(found -> found.group(1))
                .collect(Collectors.joining("; "));
        return words.isEmpty() ? said : words;
    }
}
