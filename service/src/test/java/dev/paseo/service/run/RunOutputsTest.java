package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class RunOutputsTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final RunOutputs outputs = new RunOutputs(database.mapper(RunMapper.class),
            database.mapper(StageFileMapper.class), mock(KeptBytes.class), database.json(), noon.clock);
    private final long component = database.rows().component();
    private final long id = database.rows().run(component, database.rows().line(component));
    private final long stage = database.rows().stage(id, "build", 1);
    private final Run run = mock(Run.class);

    @BeforeEach
    void run() {
        when(run.id()).thenReturn(id);
    }

    private void keep(String digest) {
        outputs.artifact(run, stage, "app", "app.jar", new RunOutputs.Bytes(digest.repeat(64), 3));
    }

    @Test
    void anArtifactIsKeptOnceAndStaysWhatItIs() {
        keep("a");
        keep("a");
        String first = "a".repeat(64);
        String now = "b".repeat(64);
        assertEquals("The artifact app is there with other bytes: " + first + ", now " + now,
                Refused.by(Kind.CONFLICT, () -> keep("b")));
    }

    @Test
    void whatAStageLeavesAgainTakesThePlaceOfWhatItLeft() {
        outputs.leave(run, stage, new RunOutputs.Bytes("a".repeat(64), 3), List.of("out/a"));
        outputs.leave(run, stage, new RunOutputs.Bytes("b".repeat(64), 3), List.of("out/b"));
        assertEquals(List.of(List.of("out/b")), outputs.left(id).stream().map(RunOutputs.Left::paths).toList());
    }
}
