package dev.paseo.language.piece;

import dev.paseo.language.file.PipelineFile.Take;

/** Where the pieces of other components are looked up. */
public interface PieceSource {

    /** Where none are known, as beside a file that is read alone. */
    PieceSource NONE = (of, version) -> new Found.Not(
            "is looked up by a service, and none was asked: paseo check --service");

    /** What a component has in the version that is meant. */
    Found find(String of, Take.Which version);

    /** What was found. */
    sealed interface Found {

        record Is(Release release) implements Found {}

        /** @param why as a sentence's end: it follows where the version is named */
        record Not(String why) implements Found {}
    }

    /**
     * The pipeline file of a version that has pieces.
     *
     * @param component its name now
     * @param version   its number
     * @param text      of the file at the version's commit
     */
    record Release(String component, String version, String text) {}
}
