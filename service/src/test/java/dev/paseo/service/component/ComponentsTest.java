package dev.paseo.service.component;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceCredentials;
import dev.paseo.service.start.StartTriggers;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ComponentsTest {

    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "lamp", Optional.empty(),
            "paseo.yaml", "main", "",
            Optional.empty());

    private final AtNoon noon = new AtNoon();
    private final ComponentMapper mapper = mock(ComponentMapper.class);
    private final Components components = new Components(mapper,
            new ComponentMirrors(mapper, mock(Mirrors.class), mock(SourceCredentials.class)),
            RealDatabase.get().json(), mock(PipelineFiles.class), mock(StartTriggers.class), noon.changes);

    @Test
    void whatIsUploadedHasNoRepository() {
        assertEquals("lamp has no repository: its versions arrive by upload",
                Refused.by(Kind.CONFLICT, () -> components.mirror(COMPONENT)));
    }

    @Test
    void ofTwoWhoSaveAtTheSameMomentOneIsToldToLookAgain() {
        assertEquals("Somebody else saved the file at the same moment: look at it again",
                Refused.by(Kind.CONFLICT,
                        () -> components.saveFile(COMPONENT, "", "paseo: 1\ncomponent: lamp\n", "anna")));
        verify(noon.audit, never()).record(any());
    }
}
