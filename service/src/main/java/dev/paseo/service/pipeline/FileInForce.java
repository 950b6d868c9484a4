package dev.paseo.service.pipeline;

import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.Used;
import java.util.List;
import java.util.Optional;

/**
 * A pipeline file as it stood at a commit: what it says, or what is wrong with it.
 *
 * @param id   of its row: the same text with other pieces is another
 * @param used the pieces that it was put together from
 */
public record FileInForce(long id, Optional<PipelineFile> file, List<Problem> problems, List<Problem> warnings,
        List<Used> used) {

    public FileInForce(long id, Optional<PipelineFile> file, List<Problem> problems, List<Problem> warnings) {
        this(id, file, problems, warnings, List.of());
    }

    /** The same, kept from use by this. */
    public FileInForce but(Problem problem) {
        return new FileInForce(id, Optional.empty(), List.of(problem), warnings, used);
    }
}
