package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class TakesTest {

    private static final long BOARD = 3;
    private static final long MODEL = 4;

    private final TakeMapper mapper = mock(TakeMapper.class);
    private final Components components = mock(Components.class);
    private final Takes takes = new Takes(mapper, components);

    @BeforeEach
    void model() {
        when(components.named("sun-model")).thenReturn(registered(MODEL, "sun-model"));
        when(mapper.opened(BOARD, MODEL)).thenReturn(Optional.of(false));
        when(mapper.artifacts(9)).thenReturn(List.of(new TakeMapper.FileRow("model")));
        newest(true);
    }

    private static RegisteredComponent registered(long id, String name) {
        return new RegisteredComponent(id, name, Optional.empty(), "paseo.yaml", "main", "", Optional.empty());
    }

    private void newest(boolean trusted) {
        when(mapper.newest(MODEL))
                .thenReturn(Optional.of(new TakeMapper.Choice(9, "1.2", "the newest", trusted)));
    }

    private List<Takes.Decided> decide(String take, boolean trusted) {
        RunStarts.Start start = mock(RunStarts.Start.class);
        RunStarts.Reason reason = mock(RunStarts.Reason.class);
        when(reason.arrived()).thenReturn(Optional.empty());
        when(start.component()).thenReturn(registered(BOARD, "sun-board"));
        when(start.branch()).thenReturn(trusted ? "main" : "feature/fog");
        when(start.trusted()).thenReturn(trusted);
        when(start.reason()).thenReturn(reason);
        when(start.plan()).thenReturn(PipelineFileReader.read("""
                paseo: 1
                component: sun-board
                stages:
                  draw:
                    steps: [make]
                    take: [{from: sun-model, %s}]
                """.formatted(take)).value().orElseThrow());
        return takes.decide(1, start);
    }

    private String refused(String take, boolean trusted) {
        return Refused.by(Kind.CONFLICT, () -> decide(take, trusted));
    }

    @Test
    void whatIsOpenedAndThereIsTaken() {
        assertEquals(List.of(new Takes.Decided("draw", 9, "model", "", "the newest")),
                decide("artifact: model, version: newest, into: in", true).stream()
                        .map(each -> new Takes.Decided(each.stage(), each.version(), each.artifact(), "",
                                each.because()))
                        .toList());
    }

    @Test
    void whatCannotBeTakenSaysWhy() {
        assertEquals("draw takes moon from sun-model 1.2, which has no such artifact; it has model",
                refused("artifact: moon, version: newest, into: in", true));
        assertEquals("feature/fog is not a trusted branch of sun-board, and sun-model is opened to trusted branches "
                + "alone", refused("artifact: model, version: newest, into: in", false));
        assertEquals("sun-model is not live in staging, where a version to take was wanted",
                refused("artifact: model, version: {live-in: staging}, into: in", true));
        assertEquals("sun-model has no version that matches 7.*",
                refused("artifact: model, version: \"7.*\", into: in", true));
        newest(false);
        assertEquals("draw takes sun-model 1.2 (the newest), which was not built from a trusted branch; a run of main "
                + "is trusted, and takes only what is", refused("artifact: model, version: newest, into: in", true));
        when(mapper.newest(MODEL)).thenReturn(Optional.empty());
        assertEquals("sun-model has no version yet to take from",
                refused("artifact: model, version: newest, into: in", true));
        when(mapper.opened(BOARD, MODEL)).thenReturn(Optional.empty());
        assertEquals("sun-board takes from sun-model, which was not opened to it",
                refused("artifact: model, version: newest, into: in", true));
    }
}
