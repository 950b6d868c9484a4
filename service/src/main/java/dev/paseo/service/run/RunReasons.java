package dev.paseo.service.run;

import dev.paseo.service.cause.Causes;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Why a run was started, and which one it waits for. */
@Component
class RunReasons {

    private final Causes causes;
    private final Lines lines;

    RunReasons(Causes causes, Lines lines) {
        this.causes = causes;
        this.lines = lines;
    }

    List<Causes.Link> causes(Run row) {
        return causes.chain(row.causeId());
    }

    /** Its number, where one before it on its branch has to end first. */
    Optional<Long> waitsFor(Run row) {
        return lines.waitsFor(row);
    }
}
