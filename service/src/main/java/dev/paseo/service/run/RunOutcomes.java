package dev.paseo.service.run;

import dev.paseo.core.run.RunEffect;
import dev.paseo.core.run.StageKey;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** Carries out what follows from decisions about runs; all of it rows, in the same transaction. */
@Component
class RunOutcomes {

    private final RunMapper mapper;
    private final WorkBoard board;
    private final Versions versions;

    RunOutcomes(RunMapper mapper, WorkBoard board, Versions versions) {
        this.mapper = mapper;
        this.board = board;
        this.versions = versions;
    }

    void carryOut(Run row, RunEffect effect, Supplier<PipelineFile> file) {
        switch (effect) {
            case RunEffect.OfferStage(var key, int attempt) -> board.offerStage(attempt(row, key, attempt),
                    file.get().stage(key.name()).orElseThrow().wants());
            case RunEffect.StopStage(var key, int attempt, boolean atOnce) -> board
                    .stopStage(attempt(row, key, attempt), atOnce);
            case RunEffect.SealVersion() -> seal(row, file);
        }
    }

    private static WorkBoard.Attempt attempt(Run row, StageKey key, int attempt) {
        return new WorkBoard.Attempt(row.id(), key.name(), key.variant(), attempt);
    }

    private void seal(Run row, Supplier<PipelineFile> from) {
        if (row.arrivedVersionId() != null) {
            versions.walkBegins(row.arrivedVersionId());
            return;
        }
        PipelineFile file = from.get();
        List<Versions.Artifact> artifacts = mapper.outputs(row.id()).stream()
                .map(output -> new Versions.Artifact(output.name(), output.fileName(), output.digest(), output.size()))
                .toList();
        versions.seal(row.componentId(),
                new Versions.Outcome(row.component(), row.versionNumber(), row.lineId(), row.number(),
                        row.trusted(), row.id(), row.commitId(), row.bundle(), row.causeId(),
                        Optional.ofNullable(row.upTo()),
                        file.deployment().map(
                                recipe -> recipe.deploying(artifacts.stream().map(Versions.Artifact::name).toList())),
                        file.route(), artifacts, null));
    }
}
