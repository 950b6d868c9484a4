package dev.paseo.service.run;

import dev.paseo.core.secret.Lack;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a run needs that is not in its repository: secrets, and artifacts of other components. */
@Component
class FromElsewhere {

    private final Secrets secrets;
    private final Takes takes;

    FromElsewhere(Secrets secrets, Takes takes) {
        this.secrets = secrets;
        this.takes = takes;
    }

    /** @throws Refusal a conflict where its stages use secrets that the component may not have */
    void refuseMissingSecrets(RunStarts.Start start) {
        if (!start.trusted()) {
            return;
        }
        List<String> named = start.plan().stages().stream().flatMap(stage -> stage.secrets().stream()).distinct()
                .toList();
        List<Lack> lacks = secrets.lacks(named, start.component().id(), 0);
        if (!lacks.isEmpty()) {
            throw Refusal.conflict("The stages use what they may not have: "
                    + Lack.sentences(lacks, start.component().name(), Optional.empty()));
        }
    }

    /** Which artifacts its stages take, decided once, when it starts. */
    List<Takes.Decided> taken(long line, RunStarts.Start start) {
        return takes.decide(line, start);
    }

    void keep(long run, List<Takes.Decided> taken) {
        takes.keep(run, taken);
    }
}
