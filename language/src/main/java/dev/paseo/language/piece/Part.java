package dev.paseo.language.piece;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The parts of a pipeline file that a piece may have. */
enum Part {
    STAGES("stages", "stages"), DEPLOYMENT("deployment", "deployment"), CHECKS("checks", "deployment.checks"),
    ROUTE("route", "route");

    private final String key;
    private final String path;

    Part(String key, String path) {
        this.key = key;
        this.path = path;
    }

    /** Its key in a piece. */
    String key() {
        return key;
    }

    /** Where it stands in a pipeline file. */
    String path() {
        return path;
    }

    static List<String> keys() {
        return Stream.of(values()).map(Part::key).toList();
    }

    static Optional<Part> of(String key) {
        return Stream.of(values()).filter(part -> part.key.equals(key)).findFirst();
    }
}
