package dev.paseo.service.run;

import dev.paseo.core.run.RunEvent;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.source.Mirror;
import java.util.List;
import org.springframework.stereotype.Component;

/** Pins a run's commit and keeps what of it is sealed as it is; then its stages may start. */
@Component
class PrepareRun implements EffectHandler {

    static final String KIND = "prepare-run";

    private final Runs runs;
    private final Lines lines;
    private final CommitFiles files;

    PrepareRun(Runs runs, Lines lines, CommitFiles files) {
        this.runs = runs;
        this.lines = lines;
        this.files = files;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void perform(String body) {
        long id = Long.parseLong(body);
        Run run = runs.byId(id);
        if (!run.commitId().isEmpty()) {
            bring(run);
        }
        lines.prepared(run);
    }

    private void bring(Run run) {
        Mirror mirror = runs.mirror(run);
        mirror.pin("runs/" + run.id(), run.commitId());
        if (run.arrivedVersionId() == null) {
            PipelineFile file = runs.file(run);
            files.bring(run, mirror, file.deployment().map(Recipe::bring).orElse(List.of()));
            if (file.isOfTree()) {
                files.tree(run, mirror, file.tree());
            }
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        runs.apply(Long.parseLong(body), new RunEvent.PreparationFailed(error));
    }
}
