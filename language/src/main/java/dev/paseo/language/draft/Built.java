package dev.paseo.language.draft;

import java.util.List;
import java.util.Optional;

/**
 * How a repository is built, and what comes of it.
 *
 * @param stages   none where the commit's files are the artifact
 * @param tree     the folder of those files; empty: all
 * @param artifact its name; empty where nobody knows which file it is
 */
record Built(List<Stage> stages, Optional<String> tree, Optional<String> artifact, Form form) {

    /** What an artifact is, which says how it may be brought to a host. */
    enum Form {
        JAR, BINARY, ARCHIVE, PAGE, IMAGE
    }

    /**
     * A stage of the draft.
     *
     * @param why   sentences that become comments
     * @param lines YAML, below the stage's name
     */
    record Stage(String name, List<String> why, List<String> lines) {}

    static Built of(Form form, String artifact, Stage... stages) {
        return new Built(List.of(stages), Optional.empty(), Optional.of(artifact), form);
    }

    static Built unknown(List<Stage> stages) {
        return new Built(stages, Optional.empty(), Optional.empty(), Form.BINARY);
    }
}
