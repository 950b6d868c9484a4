package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.source.Mirror;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What a person asks to be run, and what is said where it cannot be. */
class PersonStartsTest {

    private static final String FILE = """
            paseo: 1
            component: daylight-api
            versions: "1.{serial}"
            stages: {build: {steps: [make]}}
            deployment: {on-each-host: [deploy/install.sh]}
            route: [{staging: automatic}]
            """;
    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "daylight-api",
            Optional.of("ssh://git.park.test/api.git"), "paseo.yaml", "main", "", Optional.empty());

    private final Components components = mock(Components.class);
    private final RunStarts starts = mock(RunStarts.class);
    private final PersonStarts asked = new PersonStarts(components, starts, mock(Causes.class),
            RealDatabase.get().transactions());

    @BeforeEach
    void aComponentWithTwoBranches() {
        when(components.named("daylight-api")).thenReturn(COMPONENT);
        when(components.heads(7)).thenReturn(Map.of("main", "c0ffee", "feature/map", "c0ffee2"));
        when(components.rules(7)).thenReturn(new BranchRules(List.of(), List.of(new BranchPattern("main"))));
        Mirror mirror = mock(Mirror.class);
        when(components.mirror(COMPONENT)).thenReturn(mirror);
        when(mirror.tagged(any())).thenReturn(new Mirror.Commit("c0ffee", "Draw it", "Anna", "anna@park.example",
                Rows.NOON, Optional.empty()));
        file(FILE);
    }

    private void file(String text) {
        Reading<PipelineFile> read = PipelineFileReader.read(text);
        when(components.readFile(any(), any()))
                .thenReturn(new FileInForce(1, read.value(), read.problems(), List.of()));
    }

    private void start(Optional<String> branch, Optional<String> upTo) {
        asked.start("daylight-api", branch, upTo, Map.of(), new Cause.Asked("anna", Optional.empty()));
    }

    private RunStarts.Start started() {
        ArgumentCaptor<RunStarts.Start> start = ArgumentCaptor.captor();
        verify(starts).start(start.capture());
        return start.getValue();
    }

    @Test
    void theNewestOfTheMainBranchWhereNoneIsNamed() {
        start(Optional.empty(), Optional.of("staging"));
        assertEquals("main", started().branch());
        assertEquals(true, started().trusted());
        assertEquals("staging", started().upTo());
    }

    @Test
    void aBranchThatIsNotTrustedStartsWithoutTrust() {
        start(Optional.of("feature/map"), Optional.empty());
        assertEquals(false, started().trusted());
    }

    @Test
    void whatIsNotThereIsNamedWithWhatIsNear() {
        assertEquals("daylight-api has no branch mian; did you mean main?",
                Refused.by(Kind.NOT_FOUND, () -> start(Optional.of("mian"), Optional.empty())));
        assertEquals("production is not on the route of daylight-api",
                Refused.field("/upTo", () -> start(Optional.empty(), Optional.of("production"))));
        verify(starts, never()).start(any());
    }

    @Test
    void aFileWithProblemsStartsNothing() {
        file(FILE.replace("stages:", "stagse:"));
        Refused.by(Kind.UNPROCESSABLE, () -> start(Optional.empty(), Optional.empty()));
        verify(starts, never()).start(any());
    }
}
